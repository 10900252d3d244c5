export { TasksOfBuild } from './TasksOfBuild.tsx';
