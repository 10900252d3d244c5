export { NewStore } from './NewStore.tsx';
export { StoreForm } from './StoreForm.tsx';
