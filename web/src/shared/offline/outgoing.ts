import type { Schemas } from '@/shared/api/client'

/** Fields that are set, and what was last seen in them. */
interface EditOf<P> {
  changes: P
  seen: P
}
type Patches = {
  change_project: Schemas['ProjectPatchRequest']
  change_unit: Schemas['UnitPatchRequest']
  change_fabric: Schemas['FabricPatchRequest']
  change_workroom: Schemas['WorkroomPatchRequest']
  put_ruler: Schemas['RulerPatchRequest']
  put_fabric: Schemas['FabricPatchRequest']
  put_block: Schemas['BlockPatchRequest']
  change_quilt: Schemas['QuiltPatchRequest']
  put_stock: Schemas['StockPatchRequest']
  put_on_shelf: Schemas['ShelfPatchRequest']
  change_pile: Schemas['PilePatchRequest']
  change_handling: Schemas['HandlingPatchRequest']
  put_reading: Schemas['ReadingPatchRequest']
  put_measured: Schemas['ReadingPatchRequest']
  put_top_measured: Schemas['TopPatchRequest']
  change_saved: Schemas['SavedPatchRequest']
  put_set_up: Schemas['SetUpPatchRequest']
  put_test: Schemas['SeamTestPatchRequest']
  put_time: Schemas['WorkTimePatchRequest']
  put_free: Schemas['FreeTimePatchRequest']
  change_schedule: Schemas['SchedulePatchRequest']
  put_entry: Schemas['LogEntryPatchRequest']
  say_why: Schemas['WhyPatchRequest']
}
type Sets<K extends keyof Patches> = { kind: K } & EditOf<Patches[K]>

/** What readings are of: a block or a kind of unit. */
export interface Of {
  subject: 'blocks' | 'units'
  of: string
}

/** Everything the quilter can change, as plain data: kept in this browser until the server has it. */
export type Outgoing =
  | (Sets<'change_project'> & { project: string })
  | (Sets<'change_unit'> & { project: string; unit: string })
  | (Sets<'change_fabric'> & { project: string; fabric: string })
  | Sets<'change_workroom'>
  | (Sets<'put_ruler'> & { ruler: string })
  | { kind: 'delete_ruler' | 'restore_ruler'; ruler: string }
  | { kind: 'add_unit'; project: string; unit: string; of: string; copyOf?: string }
  | { kind: 'delete_unit' | 'restore_unit'; project: string; unit: string }
  | (Sets<'put_fabric'> & { project: string; fabric: string })
  | { kind: 'delete_fabric' | 'restore_fabric'; project: string; fabric: string }
  | { kind: 'exchange_fabrics'; project: string; one: string; other: string }
  | ({ kind: 'begin_project'; project: string } & Omit<Schemas['BeginningRequest'], 'id'>)
  | { kind: 'duplicate_project'; project: string; source: string }
  | { kind: 'open_state'; project: string; source: string; state: string }
  | { kind: 'delete_project' | 'restore_project' | 'archive_project' | 'unarchive_project'; project: string }
  | (Sets<'put_block'> & { project: string; block: string; start?: string })
  | { kind: 'edit_block'; project: string; block: string; edit: Schemas['EditWireRequest'] }
  | { kind: 'keep_own'; library: string; block: string }
  | { kind: 'delete_own' | 'restore_own'; library: string }
  | { kind: 'tick_strip'; project: string; number: number; done: boolean; plan: string }
  | { kind: 'mark_cut' | 'undo_cutting' | 'take_up_scraps'; project: string }
  | (Sets<'change_pile'> & { project: string; letter: string })
  | { kind: 'keep_over' | 'put_triangles_by'; project: string; letter: string }
  | { kind: 'round_sizes' | 'unround_sizes'; project: string }
  | { kind: 'keep_spares'; project: string; unit: string }
  | { kind: 'use_spares'; project: string; unit: string; stock: string }
  | { kind: 'delete_block' | 'restore_block'; project: string; block: string }
  | (Sets<'change_quilt'> & { project: string })
  | (Sets<'put_stock'> & { project: string; fabric: string; stock: string })
  | { kind: 'delete_stock' | 'restore_stock'; project: string; stock: string }
  | { kind: 'shelve_stock'; project: string; stock: string; count: number; rest: string }
  | {
      kind: 'take_shelf_stock'
      project: string
      fabric: string
      stock: string
      count: number
      rest: string
    }
  | (Sets<'put_on_shelf'> & { shelved: string })
  | { kind: 'delete_shelved' | 'restore_shelved'; shelved: string }
  | (Sets<'change_handling'> & { project: string; unit: string })
  | { kind: 'put_done'; project: string; done: string; body: Schemas['DoneRequest'] }
  | { kind: 'take_back'; project: string; done: string }
  | (Sets<'put_reading'> & { reading: string } & Of)
  | ({ kind: 'delete_reading' | 'restore_reading'; reading: string } & Of)
  | (Sets<'put_measured'> & { project: string; block: string; reading: string })
  | (Sets<'put_top_measured'> & { project: string; place: string })
  | { kind: 'delete_measured'; project: string; block: string; reading: string }
  | ({ kind: 'save_diagnosis'; saved: string } & Of)
  | (Sets<'change_saved'> & { saved: string } & Of)
  | (Sets<'put_set_up'> & { set_up: string; came_from?: string })
  | { kind: 'use_set_up' | 'delete_set_up' | 'restore_set_up'; set_up: string }
  | (Sets<'put_test'> & { set_up: string; test: string })
  | { kind: 'delete_test' | 'restore_test'; set_up: string; test: string }
  | { kind: 'leave_day_out' | 'take_day_back'; day: string }
  | {
      kind: 'begin_clock'
      time: string
      project: string
      stage: Schemas['ClockRequest']['stage']
      at: string
    }
  | { kind: 'stop_clock'; time: string; at: string }
  | (Sets<'put_time'> & { time: string; project?: string; subject?: 'units' | 'blocks'; of?: string })
  | { kind: 'delete_time' | 'restore_time'; time: string }
  | { kind: 'put_blade' | 'delete_blade'; blade: string; on: string }
  | (Sets<'put_free'> & { free: string })
  | { kind: 'delete_free' | 'restore_free'; free: string }
  | { kind: 'put_busy_day' | 'delete_busy_day'; on: string }
  | { kind: 'leave_calendar'; calendar: string }
  | (Sets<'change_schedule'> & { project: string })
  | { kind: 'keep_plan' }
  | (Sets<'put_entry'> & { entry: string; project?: string; unit?: string })
  | { kind: 'delete_entry' | 'restore_entry'; entry: string }
  | { kind: 'put_photo'; entry: string; photo: string; image: string; caption: string }
  | { kind: 'delete_photo' | 'restore_photo'; photo: string }
  | (Sets<'say_why'> & { project: string; done: string })
