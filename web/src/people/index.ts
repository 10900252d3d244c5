export { CompanyForm } from './CompanyForm.tsx';
