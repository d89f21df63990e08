import { pdfOf } from './pdf.ts';

export default pdfOf;
