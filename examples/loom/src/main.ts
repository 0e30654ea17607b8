import { startGallery } from './gallery.ts';
import { startLoom } from './loom.ts';

startLoom();
startGallery();
