export { MAX_ROBOTS_BYTES, normalizePattern, parseRobots } from './parse';
export type { RobotsFault, RobotsFile, RobotsGroup } from './parse';
export { crawlDelayFor, pathTest, robotsMatcher } from './match';
export type { RobotsAnswer, RobotsMatcher } from './match';
