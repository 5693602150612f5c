/**
 * Takes the demo photos, with the blur and grain of a small camera.
 *   npm run demo:photo
 */
import { photograph } from './camera';
import { estuary } from './estuary';
import { heron } from './heron';
import { stillLife } from './stillLife';

photograph('public/demo/estuary.jpg', estuary, 77);
photograph('public/demo/still-life.jpg', stillLife, 78);
photograph('public/demo/heron.jpg', heron, 79);
