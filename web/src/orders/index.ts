export { Outlook } from './Outlook.tsx';
