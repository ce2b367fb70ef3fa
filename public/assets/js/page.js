// What every page does by itself.
import './asking.js';
import './choosing.js';
import './cover.js';
import './marks.js';
import './renewed-rows.js';
import './ticks.js';
import './uploads.js';
import './words.js';
