import type { taskRoutes } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import type { HandlersOf } from '../command/doing.ts';
import { addTask, changeTasks } from './change.ts';
import { clockOf, listTasks, timesOfBuild } from './sql.ts';
import { addTime, removeTime, startClock, stopClock } from './times.ts';

export const taskHandlers: HandlersOf<typeof taskRoutes> = {
  tasks: ({ db, query, now }) => listTasks(db, query, dayOf(now)),
  changeTasks: (command) => changeTasks(command, command.body),
  addTask: (command) => addTask(command, command.params.id, command.body),
  taskTimes: ({ db, params }) => timesOfBuild(db, params.id),
  addTime: (command) => addTime(command, command.params.id, command.body),
  removeTime: (command) => removeTime(command, command.params.id),
  clock: async ({ db, person, now }) => ({ clock: person ? await clockOf(db, person.id, now) : null }),
  startClock: (command) => startClock(command, command.params.id),
  stopClock: (command) => stopClock(command, command.body),
};
