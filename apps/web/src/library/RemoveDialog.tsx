import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { DemonstrationSummary } from '@yperkine/protocol';
import { library } from '../api/library.ts';
import { Button } from '../parts/Button.tsx';
import { Veil } from '../parts/Veil.tsx';

/** Asks once before a demonstration is deleted for good. */
export function RemoveDialog({ summary, onClose }: { summary: DemonstrationSummary; onClose: () => void }) {
  const queries = useQueryClient();
  const remove = useMutation({
    mutationFn: () => library.remove(summary.id),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ['library'] });
      onClose();
    },
  });
  return (
    <Dialog open onClose={onClose} className="relative z-50">
      <Veil />
      <div className="fixed inset-0 grid place-items-center p-4">
        <DialogPanel className="card w-full max-w-md p-6">
          <DialogTitle className="text-xl font-semibold">Delete “{summary.title}”?</DialogTitle>
          <p className="mt-1 mb-5 text-quiet">It cannot be brought back.</p>
          {remove.error && (
            <p role="alert" className="mb-3 text-danger">
              {remove.error.message}
            </p>
          )}
          <div className="flex justify-end gap-2">
            <Button onClick={onClose}>Keep it</Button>
            <Button look="strong" disabled={remove.isPending} onClick={() => remove.mutate()}>
              Delete
            </Button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
