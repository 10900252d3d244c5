export { makeTasks, nextPosition, openTasks, spentByLine, type TaskRecord, tasksOfBuild, toTask } from './sql.ts';
export { endTasks, stopClocks } from './times.ts';
