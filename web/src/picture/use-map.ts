import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { RoutingMap } from '@yunta/core/signal/drawing/map';
import ELK from 'elkjs/lib/elk-api.js';
import elkWorker from 'elkjs/lib/elk-worker.min.js?url';
import { useAsked } from '../shared/rig-context.js';
import { layMap, type LaidMap } from './map-layout.js';
import { surely } from '@yunta/core/known/the';

let elk: InstanceType<typeof ELK> | undefined;
/** The time that it takes stands among the page's measures as "map layout". */
const layOut = async (map: RoutingMap): Promise<LaidMap> => {
  const start = performance.now();
  const laid = await layMap(map, (elk ??= new ELK({ workerUrl: elkWorker })));
  performance.measure('map layout', { start });
  return laid;
};

/** The map of the hook-up that is shown, laid out in a worker; laid out anew only when boxes or cables are others. */
export const useMap = (): LaidMap | undefined => {
  const map = useAsked(['map'], (worker) => worker.answers.map());
  return useQuery({
    queryKey: ['map layout', JSON.stringify(map)],
    queryFn: () => layOut(surely(map)),
    enabled: map !== undefined,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
  }).data;
};
