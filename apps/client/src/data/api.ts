import { API_VERSION, API_VERSION_HEADER } from '@zealous/contracts/limits';
import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import type {
  EventStored,
  LinkResult,
  LinkStatus,
  MachineSummary,
  OrderDocument,
  OrderSummary,
  Paged,
  Problem,
  ShopDocument,
  ShopHistory,
  StoredEvent,
} from '@zealous/contracts/messages';
import { versionSeen } from './ordersSlice';
// Types only: this stands in the first piece of the page, which does without the core.
import type { ChangeKind, Learned, LineIntent, Machine, OrderEvent, ShopCatalogue, ShopChange } from '@zealous/core';

const plain = fetchBaseQuery({ baseUrl: '/api', timeout: 10_000 });

export const api = createApi({
  reducerPath: 'api',
  baseQuery: async (args, context, more) => {
    const answer = await plain(args, context, more);
    const version = answer.meta?.response?.headers.get(API_VERSION_HEADER);
    if (version) context.dispatch(versionSeen(version === API_VERSION ? 'same' : 'other'));
    return answer;
  },
  tagTypes: ['Orders', 'Machines', 'Shop', 'Links'],
  endpoints: (build) => ({
    machines: build.query<readonly MachineSummary[], void>({
      query: () => '/machines',
      providesTags: ['Orders', 'Machines'],
    }),
    retiredMachines: build.query<readonly MachineSummary[], void>({
      query: () => '/machines?retired=true',
      providesTags: ['Machines'],
    }),
    machine: build.query<Machine, string>({
      query: (id) => `/machines/${encodeURIComponent(id)}`,
      providesTags: ['Machines'],
    }),
    addMachine: build.mutation<Machine, Machine>({
      query: (machine) => ({ url: '/machines', method: 'POST', body: { machine } }),
      invalidatesTags: ['Machines'],
    }),
    checkMachine: build.mutation<Machine, unknown>({
      query: (machine) => ({ url: '/machines/check', method: 'POST', body: { machine } }),
    }),
    changeMachine: build.mutation<Machine, { machine: Machine; was: Machine }>({
      query: (body) => ({ url: `/machines/${encodeURIComponent(body.was.id)}`, method: 'PUT', body }),
      invalidatesTags: ['Machines'],
    }),
    links: build.query<Readonly<Record<string, string>>, void>({ query: () => '/link', providesTags: ['Links'] }),
    retireMachine: build.mutation<{ retired: boolean }, { id: string; retired: boolean }>({
      query: ({ id, retired }) => ({
        url: `/machines/${encodeURIComponent(id)}/retired`,
        method: 'PUT',
        body: { retired },
      }),
      invalidatesTags: ['Machines'],
    }),
    linkStatus: build.query<LinkStatus, { machine: string; phone: string }>({
      query: ({ machine, phone }) => ({ url: `/link/${encodeURIComponent(machine)}`, params: { phone } }),
      keepUnusedDataFor: 0,
    }),
    setLink: build.mutation<LinkStatus, { machine: string; address: string }>({
      query: ({ machine, address }) => ({
        url: `/link/${encodeURIComponent(machine)}`,
        method: 'PUT',
        body: { address },
      }),
      invalidatesTags: ['Links'],
    }),
    dropLink: build.mutation<void, string>({
      query: (machine) => ({ url: `/link/${encodeURIComponent(machine)}`, method: 'DELETE' }),
      invalidatesTags: ['Links'],
    }),
    linkDo: build.mutation<
      LinkStatus,
      { machine: string; what: 'take' | 'stop' | 'start-again' | 'stand-in'; body: object }
    >({
      query: ({ machine, what, body }) => ({
        url: `/link/${encodeURIComponent(machine)}/${what}`,
        method: 'POST',
        body,
      }),
    }),
    linkAsk: build.mutation<LinkResult, { machine: string; phone: string; order: string; intent: LineIntent }>({
      query: ({ machine, ...body }) => ({
        url: `/link/${encodeURIComponent(machine)}/ask`,
        method: 'POST',
        body,
        // A long feed is answered when it has come to rest.
        timeout: 240_000,
      }),
    }),
    shopHistory: build.query<ShopHistory, void>({ query: () => '/shop/history', providesTags: ['Orders'] }),
    shop: build.query<ShopDocument, void>({ query: () => '/shop', providesTags: ['Shop'] }),
    setChange: build.mutation<ShopCatalogue, ShopChange>({
      query: ({ kind, id, ...body }) => ({
        url: `/shop/changes/${kind}/${encodeURIComponent(id)}`,
        method: 'PUT',
        body,
      }),
      invalidatesTags: ['Shop'],
    }),
    dropChange: build.mutation<ShopCatalogue, { kind: ChangeKind; id: string }>({
      query: ({ kind, id }) => ({ url: `/shop/changes/${kind}/${encodeURIComponent(id)}`, method: 'DELETE' }),
      invalidatesTags: ['Shop'],
    }),
    replaceCatalogue: build.mutation<ShopCatalogue, ShopCatalogue>({
      query: (catalogue) => ({ url: '/shop/catalogue', method: 'PUT', body: { catalogue } }),
      invalidatesTags: ['Shop'],
    }),
    importLearned: build.mutation<Learned, Learned>({
      query: (learned) => ({ url: '/shop/learned', method: 'POST', body: { learned } }),
      invalidatesTags: ['Shop'],
    }),
    forgetImports: build.mutation<Learned, void>({
      query: () => ({ url: '/shop/learned/imported', method: 'DELETE' }),
      invalidatesTags: ['Shop'],
    }),
    orders: build.query<
      Paged<OrderSummary>,
      { status?: 'open' | 'closed'; machine?: string; page?: number; search?: string }
    >({
      query: (params) => ({ url: '/orders', params }),
      providesTags: ['Orders'],
    }),
    order: build.query<OrderDocument, string>({ query: (id) => `/orders/${id}`, keepUnusedDataFor: 0 }),
    eventsAfter: build.query<readonly StoredEvent[], { id: string; after: number; last?: string }>({
      query: ({ id, ...params }) => ({ url: `/orders/${id}/events`, params }),
      keepUnusedDataFor: 0,
    }),
    sendEvent: build.mutation<EventStored, { orderId: string; event: OrderEvent }>({
      query: ({ orderId, event }) => ({ url: `/orders/${orderId}/events`, method: 'POST', body: event }),
      invalidatesTags: (result) => (result ? ['Orders'] : []),
    }),
  }),
});

export const {
  useMachinesQuery,
  useMachineQuery,
  useRetiredMachinesQuery,
  useAddMachineMutation,
  useChangeMachineMutation,
  useRetireMachineMutation,
  useCheckMachineMutation,
  useOrdersQuery,
  useOrderQuery,
  useShopHistoryQuery,
  useShopQuery,
  useSetChangeMutation,
  useDropChangeMutation,
  useReplaceCatalogueMutation,
  useImportLearnedMutation,
  useForgetImportsMutation,
  useLinksQuery,
  useLinkStatusQuery,
  useSetLinkMutation,
  useDropLinkMutation,
  useLinkDoMutation,
  useLinkAskMutation,
} = api;

/** What went wrong with a request, in words that say what to do; `placeOf` tells a JSON path in words, where it can. */
export function problemText(error: unknown, placeOf: (path: string) => string | undefined = () => undefined): string {
  const data = typeof error === 'object' && error !== null && 'data' in error ? error.data : undefined;
  const problem: unknown = typeof data === 'string' ? parsed(data) : data;
  if (typeof problem === 'object' && problem !== null && 'detail' in problem) {
    const { path, detail } = problem as Problem;
    return path ? `${placeOf(path) ?? path}: ${detail}` : detail;
  }
  return 'The server does not answer. Nothing was stored; try again when it is back.';
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
