import { Portal, Toast, Toaster } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { toaster } from './toastStore';

/** Where what was just done is said. */
export default function Toasts() {
  return (
    <Portal>
      <Toaster toaster={toaster}>
        {(toast) => (
          <Toast.Root>
            <Toast.Title>{toast.title}</Toast.Title>
            {toast.action && <Toast.ActionTrigger>{toast.action.label}</Toast.ActionTrigger>}
            <Toast.CloseTrigger aria-label="Close">
              <X size={18} aria-hidden="true" />
            </Toast.CloseTrigger>
          </Toast.Root>
        )}
      </Toaster>
    </Portal>
  );
}
