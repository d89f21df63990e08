import { createRunner } from 'jest-light-runner';

/** @public named by jest.config.js */
export default createRunner({ runtime: 'child_process' });
