import type { Card } from '@yunta/core/derive/views/card';
import { everyPart } from '@yunta/core/rig/rig';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo } from 'react';
import { api, type RigEntry } from '../../session/api.js';
import { CardMaker } from '../../worker/client.js';

/** The one that makes the cards of this page; it goes with the page. */
export const useCardMaker = (): CardMaker => {
  const maker = useMemo(() => new CardMaker(), []);
  useEffect(() => () => maker.close(), [maker]);
  return maker;
};

/** What there is of a rig that is not open; worked out once for each of its revisions, the older staying meanwhile. */
export const useCard = (maker: CardMaker, { id, revision }: RigEntry): Card | undefined =>
  useQuery({
    queryKey: ['card', id, revision],
    queryFn: async () => maker.card(everyPart(await api.rig(id))),
    placeholderData: (older: Card | undefined) => older,
    staleTime: Infinity,
    gcTime: 30 * 60_000,
    retry: 0,
  }).data;
