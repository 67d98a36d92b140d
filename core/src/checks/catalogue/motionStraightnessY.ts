import { motionStraightness } from '../motionStraightness.js';

export const motionStraightnessY = motionStraightness('y');
