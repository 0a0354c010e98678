import { useQuery } from '@tanstack/vue-query'

import { api, type Schemas, taken } from '@/shared/api/client'

export type WorkStage = Schemas['ClockRequest']['stage']
export type WorkTime = Schemas['WorkTime']
export type Evenings = Schemas['EveningSheet']
export type ProjectTime = Schemas['ProjectTime']

export const useTimes = () => useQuery({ queryKey: ['times'], queryFn: () => taken(api.GET('/api/times')) })

export const useEvenings = () =>
  useQuery({ queryKey: ['evenings'], queryFn: () => taken(api.GET('/api/evenings')) })

/** A file goes straight to the server and is not sent twice by itself. */
export const takeTimes = (text: string) => taken(api.POST('/api/times/minutes.csv', { body: { text } }))
export const takeCalendar = (name: string, text: string) =>
  taken(api.POST('/api/evenings/calendars', { body: { name, text } }))
