export { makeTasks, nextPosition, spentByLine, tasksOfBuild, toTask } from './sql.ts';
export { endTasks, stopClocks } from './times.ts';
