import fc from 'fast-check';
import { isLong } from './often.ts';

// bin/test tries the same values each time, so that it fails for a change of the code alone; the long run tries others.
if (!isLong) fc.configureGlobal({ seed: 20261202 });
