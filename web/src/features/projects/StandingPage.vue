<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { NButton, NProgress } from 'naive-ui'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'

import { api, type Project, Refusal, taken } from '@/shared/api/client'
import { ProjectTime } from '@/features/clock'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import PileLetter from '@/shared/ui/PileLetter.vue'
import WaitingFor from '@/shared/ui/WaitingFor.vue'
import Len from '@/shared/words/Len.vue'

/** Where a project stands: fabrics, blocks, units, quilt, what is cut and left, and what to do next. */
const props = defineProps<{ project: Project }>()
const { data, error } = useQuery(
  computed(() => ({
    queryKey: ['standing', props.project.id],
    queryFn: () =>
      taken(api.GET('/api/projects/{key}/standing', { params: { path: { key: props.project.id } } })),
  })),
)
const fabric = (role: string) => props.project.fabrics.find((f) => f.role === role)
const params = computed(() => ({ project: props.project.id }))
const steps: Record<string, { name: string; title: string; stage?: string }> = {
  begin: { name: 'blocks', title: 'Lay out a block' },
  blocks: { name: 'blocks', title: 'Go on laying out' },
  cut: { name: 'cut', title: 'Go to Cut' },
  sew: { name: 'bench', title: 'Go on at the bench' },
  trim: { name: 'bench', title: 'Go on trimming' },
  join: { name: 'bench', title: 'Go on joining' },
  quilt: { name: 'bench', title: 'Put the quilt together' },
  measure: { name: 'project', stage: 'measure', title: 'Go to Measure' },
}
const subjects: Record<string, string> = { sew: 'units', trim: 'units', join: 'blocks', quilt: 'quilt' }
const step = computed(() => steps[data.value?.next.stage ?? 'begin']!)
const next = computed(() => {
  const { stage, of } = data.value?.next ?? {}
  const subject = subjects[stage ?? '']
  return {
    name: step.value.name,
    params: { ...params.value, ...(step.value.stage ? { stage: step.value.stage } : {}) },
    query: subject ? { subject, ...(of ? { of } : {}) } : {},
  }
})
const made = computed(() => data.value?.bench.units.filter((u) => u.sewn_here) ?? [])
const query = (subject: string, of: string) => ({
  name: 'bench',
  params: params.value,
  query: { subject, of },
})
const { send, tried } = useOutbox()
const undo = useUndo()
const problem = ref('')
async function round() {
  try {
    const project = props.project.id
    await tried({ kind: 'round_sizes', project })
    problem.value = ''
    undo('The sizes were made round.', () => send({ kind: 'unround_sizes', project }))
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.message
  }
}
const cut = computed(() => (data.value ? data.value.wanted - data.value.left : 0))
</script>

<template>
  <main id="main" class="standing">
    <WaitingFor v-if="!data && !error" what="this project" />
    <template v-if="data">
      <section class="sheet next" aria-label="What to do next">
        <div>
          <h2>Next</h2>
          <p>{{ data.next.said }}</p>
          <ul v-if="data.waiting.length" class="serious">
            <li v-for="w in data.waiting" :key="w">{{ w }}</li>
          </ul>
        </div>
        <div class="ways">
          <RouterLink v-slot="{ navigate, href }" custom :to="next">
            <NButton type="primary" size="large" tag="a" :href="href" @click="navigate">{{
              step.title
            }}</NButton>
          </RouterLink>
          <RouterLink
            v-if="data.next.stage === 'begin'"
            v-slot="{ navigate, href }"
            custom
            :to="{ name: 'project', params: { ...params, stage: 'plan' } }"
          >
            <NButton size="large" tag="a" :href="href" @click="navigate">Plan a unit</NButton>
          </RouterLink>
        </div>
      </section>
      <section v-if="data.off.length" class="sheet" aria-label="Sizes that are not round">
        <h2>Not round in {{ project.measure === 'mm' ? 'millimetres' : 'inches' }}</h2>
        <ul>
          <li v-for="o in data.off" :key="o">{{ o }}</li>
        </ul>
        <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
        <NButton size="small" @click="round">Make these sizes round</NButton>
        <span class="soft"> Nothing is cut yet, so what to cut follows.</span>
      </section>
      <div class="two even">
        <section v-if="made.length || data.bench.blocks.length" class="sheet" aria-label="At the bench">
          <h2>At the bench</h2>
          <ul class="made">
            <li v-for="u in made" :key="u.unit">
              <RouterLink :to="query('units', u.unit)">{{ u.title }}</RouterLink>
              <span role="status">
                {{ u.tally.sewn }} sewn, {{ u.tally.pressed }} pressed, {{ u.tally.trimmed }} trimmed of
                {{ u.tally.to_make
                }}<template v-if="u.tally.spoiled">; {{ u.tally.spoiled }} spoiled</template>
              </span>
            </li>
            <li v-for="b in data.bench.blocks" :key="b.block">
              <RouterLink :to="query('blocks', b.block)">{{ b.name }}</RouterLink>
              <span>{{ b.joined }} of {{ b.count }} joined</span>
            </li>
          </ul>
        </section>
        <ProjectTime :project="project.id" />
      </div>
      <div class="two">
        <section class="sheet" aria-label="What is planned">
          <div class="head">
            <h2>Planned</h2>
            <RouterLink :to="{ name: 'story', params }">The whole of it, to print or keep</RouterLink>
          </div>
          <dl>
            <dt>Fabrics</dt>
            <dd class="fabrics">
              <span v-for="f in project.fabrics" :key="f.id"
                ><i :style="{ background: f.colour }" aria-hidden="true" />{{ f.name }}</span
              >
              <span v-if="!project.fabrics.length" class="soft">none yet</span>
            </dd>
            <dt>Blocks</dt>
            <dd>
              <span v-for="b in data.blocks" :key="b">{{ b }}</span>
              <span v-if="!data.blocks.length" class="soft">none</span>
            </dd>
            <dt>Units</dt>
            <dd>
              <span v-for="u in data.units" :key="u">{{ u }}</span>
              <span v-if="!data.units.length" class="soft">none</span>
            </dd>
            <dt>Quilt</dt>
            <dd>
              <template v-if="data.quilt">{{ data.quilt }}</template>
              <span v-else class="soft">none put together</span>
            </dd>
            <dt>Readings</dt>
            <dd>{{ data.readings || 'none taken' }}</dd>
          </dl>
        </section>
        <section class="sheet" aria-label="What to cut">
          <h2>To cut</h2>
          <template v-if="data.wanted">
            <NProgress
              type="line"
              :percentage="Math.round((100 * cut) / data.wanted)"
              :show-indicator="false"
              aria-hidden="true"
            />
            <p role="status">{{ cut }} of {{ data.wanted }} pieces are cut, {{ data.left }} are left.</p>
          </template>
          <p v-else class="soft">Nothing is wanted yet.</p>
          <ul class="piles">
            <li v-for="p in data.piles" :key="p.letter">
              <PileLetter :letter="p.letter" :colour="fabric(p.fabric)?.colour" />
              <span>
                {{ p.left || p.wanted }} {{ fabric(p.fabric)?.name }} <Len :of="p.width" about /><template
                  v-if="!p.square"
                >
                  × <Len :of="p.height" about
                /></template>
                <span class="soft">{{ p.left ? p.name : `${p.name}: cut` }}</span>
              </span>
            </li>
          </ul>
        </section>
      </div>
    </template>
  </main>
</template>

<style scoped>
.standing,
.two {
  display: grid;
  gap: 14px;
}

.two {
  grid-template-columns: minmax(0, 5fr) minmax(0, 7fr);
  align-items: start;
}

.even {
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 420px), 1fr));
}

.made {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
  display: grid;
  gap: 6px;
}

.made li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
}

.next {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 14px 30px;
}

.next ul {
  margin: 8px 0 0;
  padding-left: 20px;
}

.ways {
  display: flex;
  gap: 12px;
}

dl {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 10px 14px;
  margin: 10px 0 0;
}

dt {
  font-weight: 600;
}

dd {
  margin: 0;
  display: grid;
  gap: 2px;
}

.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 2px 16px;
  align-items: baseline;
}

.fabrics {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}

.fabrics span {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}

.fabrics i {
  width: 16px;
  height: 16px;
  border: 1px solid var(--ink);
}

.piles {
  list-style: none;
  margin: 12px 0 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 8px 16px;
}

.piles li {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr);
  gap: 10px;
  line-height: 1.25;
}

.piles .soft {
  display: block;
}

@media (width <= 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
