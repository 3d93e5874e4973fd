import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Device } from '@yunta/core/rig/device';
import { useState } from 'react';
import { shelfApi } from '../../session/api.js';
import { newId } from '../../session/ids.js';

/** The boxes that a person keeps for other rigs; they live on the server, apart from any rig. */
export const useShelf = () => {
  const client = useQueryClient();
  const { data: boxes = [], isError: away } = useQuery({ queryKey: ['shelf'], queryFn: shelfApi.boxes });
  const [taken, setTaken] = useState<{ readonly key: string; readonly box: Device }>();
  const changed = () => client.invalidateQueries({ queryKey: ['shelf'] });
  const put = useMutation({
    mutationFn: ({ key, box }: { key: string; box: Device }) => shelfApi.shelve(key, box),
    onSuccess: changed,
  });
  const off = useMutation({ mutationFn: (key: string) => shelfApi.takeOff(key), onSuccess: changed });
  /** The same name again replaces what stands there. */
  const shelve = (box: Device) => put.mutate({ key: boxes.find((b) => b.box.name === box.name)?.key ?? newId(), box });
  const takeOff = (entry: { readonly key: string; readonly box: Device }) => {
    setTaken(entry);
    off.mutate(entry.key);
  };
  const putBack = () => {
    if (taken) put.mutate(taken);
    setTaken(undefined);
  };
  return {
    boxes,
    away,
    shelve,
    takeOff,
    taken,
    putBack,
    trouble: (put.error ?? off.error)?.message,
    kept: put.isSuccess ? put.variables?.box : undefined,
  };
};
