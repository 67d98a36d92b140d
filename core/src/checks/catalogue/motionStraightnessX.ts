import { motionStraightness } from '../motionStraightness.js';

export const motionStraightnessX = motionStraightness('x');
