import { scalePicture } from './picture.ts';

export default scalePicture;
