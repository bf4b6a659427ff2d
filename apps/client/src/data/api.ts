import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import type {
  EventStored,
  MachineSummary,
  OrderDocument,
  OrderSummary,
  Paged,
  StoredEvent,
} from '@zealous/contracts/messages';
import type { Machine, OrderEvent } from '@zealous/core';

export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchBaseQuery({ baseUrl: '/api', timeout: 10_000 }),
  tagTypes: ['Orders'],
  endpoints: (build) => ({
    machines: build.query<readonly MachineSummary[], void>({ query: () => '/machines', providesTags: ['Orders'] }),
    machine: build.query<Machine, string>({ query: (id) => `/machines/${encodeURIComponent(id)}` }),
    orders: build.query<Paged<OrderSummary>, { status?: 'open' | 'closed'; machine?: string }>({
      query: (params) => ({ url: '/orders', params }),
      providesTags: ['Orders'],
    }),
    order: build.query<OrderDocument, string>({ query: (id) => `/orders/${id}`, keepUnusedDataFor: 0 }),
    eventsAfter: build.query<readonly StoredEvent[], { id: string; after: number }>({
      query: ({ id, after }) => ({ url: `/orders/${id}/events`, params: { after } }),
      keepUnusedDataFor: 0,
    }),
    sendEvent: build.mutation<EventStored, { orderId: string; event: OrderEvent }>({
      query: ({ orderId, event }) => ({ url: `/orders/${orderId}/events`, method: 'POST', body: event }),
      invalidatesTags: (result) => (result ? ['Orders'] : []),
    }),
  }),
});

export const { useMachinesQuery, useMachineQuery, useOrdersQuery, useOrderQuery } = api;
