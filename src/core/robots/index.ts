export { MAX_ROBOTS_BYTES, parseRobots } from './parse';
export type { RobotsFault, RobotsFile, RobotsGroup, RobotsRule } from './parse';
export { crawlDelayFor, describeRule, matchesPattern, robotsMatcher } from './match';
export type { RobotsAnswer, RobotsMatcher } from './match';
