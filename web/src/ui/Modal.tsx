import { Modal, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';

/** Over the whole screen, dark; the dialog stands in it. */
export const Overlay = styled(
  ModalOverlay,
)`position: fixed; inset: 0; background: var(--veil); z-index: 40; display: grid; place-items: center;`;
export const DialogCard = styled(
  Modal,
)`background: var(--sheet); border-radius: 5px; padding: 20px 24px; width: min(560px, calc(100vw - 24px)); box-shadow: 0 18px 60px var(--deep); max-height: 90vh; overflow: auto;`;
