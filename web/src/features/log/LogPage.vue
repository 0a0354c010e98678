<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { NButton, NPagination } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import LengthInput from '@/shared/form/LengthInput.vue'
import LabelledSelect from '@/shared/form/LabelledSelect.vue'
import WaitingFor from '@/shared/ui/WaitingFor.vue'
import { plural } from '@/shared/words/words'

import { type LogKind, useLog } from './api'
import EntryForm from './EntryForm.vue'
import LogCard from './LogCard.vue'
import RecordsFile from './RecordsFile.vue'
import TrialForm from './TrialForm.vue'

/** What was put down of the work, the newest first: trial pieces, what was made again, notes, photos, diagnoses, machines. */
const route = useRoute()
const router = useRouter()
const queryWord = (name: string) => (typeof route.query[name] === 'string' ? String(route.query[name]) : '')
const q = ref(queryWord('q'))
const project = ref(queryWord('project'))
const kind = ref<LogKind | ''>(queryWord('kind') as LogKind | '')
const page = ref(Number(queryWord('page')) || 1)
const soon = refDebounced(q, 250)
watch([soon, project, kind], () => (page.value = 1))
const asked = computed(() => ({ q: soon.value, project: project.value, kind: kind.value, page: page.value }))
// Where one looks stands in the address.
watch(asked, (now) => {
  const query = Object.fromEntries(Object.entries(now).filter(([, v]) => v && v !== 1))
  void router.replace({ query })
})
const { data, error } = useLog(asked)
const open = ref<'' | 'note' | 'learned' | 'trial'>(queryWord('put') === 'trial' ? 'trial' : '')
const today = new Date().toLocaleDateString('sv')
const projects = computed(() => [
  { value: '', label: 'all projects' },
  ...(data.value?.projects ?? []).map((p) => ({ value: p.id, label: p.name })),
])
const kinds: { value: LogKind | ''; label: string }[] = [
  { value: '', label: 'everything' },
  { value: 'trial', label: 'trial pieces' },
  { value: 'remade', label: 'made again' },
  { value: 'learned', label: 'what was learned' },
  { value: 'note', label: 'notes' },
  { value: 'diagnosis', label: 'diagnoses' },
  { value: 'set_up', label: 'machines' },
  { value: 'finished', label: 'projects put away' },
]
</script>

<template>
  <main id="main" class="log">
    <h2 class="visually-hidden">Log</h2>
    <div class="side">
      <section class="sheet" aria-label="Put something down">
        <h2>Put something down</h2>
        <div class="put">
          <NButton :type="open === 'note' ? 'primary' : 'default'" @click="open = 'note'">A note</NButton>
          <NButton :type="open === 'learned' ? 'primary' : 'default'" @click="open = 'learned'"
            >What was learned</NButton
          >
          <NButton
            v-if="data?.projects.length"
            :type="open === 'trial' ? 'primary' : 'default'"
            @click="open = 'trial'"
            >A trial piece</NButton
          >
        </div>
        <EntryForm
          v-if="open === 'note' || open === 'learned'"
          :key="open"
          :kind="open"
          :project="project"
          :today="today"
          @done="open = ''"
        />
        <TrialForm
          v-if="open === 'trial' && data"
          :projects="data.projects"
          :project="project"
          :unit="queryWord('unit')"
          @done="open = ''"
        />
        <p v-if="(open === 'note' || open === 'learned') && !project" class="soft">
          Choose a project where one looks, if it belongs to one.
        </p>
      </section>
      <RecordsFile />
    </div>
    <section class="sheet" aria-label="Log">
      <form role="search" @submit.prevent>
        <LengthInput v-model="q" label="Look for" words />
        <LabelledSelect v-model="project" label="In" :options="projects" />
        <LabelledSelect v-model="kind" label="Only" :options="kinds" />
      </form>
      <WaitingFor v-if="!data && !error" what="the log" />
      <p v-else-if="!data" role="alert">{{ error?.message }}</p>
      <template v-else>
        <p class="soft" role="status">
          {{
            data.count
              ? plural(data.count, 'entry', 'entries')
              : q || kind || project
                ? 'Nothing like that is in the log.'
                : 'Nothing is put down yet. Trial pieces, notes and photos stand here; what is made again, diagnoses and changes of machine come by themselves.'
          }}
        </p>
        <LogCard v-for="r in data.rows" :key="r.id" :row="r" :today="today" />
        <NPagination v-if="data.pages > 1" v-model:page="page" :page-count="data.pages" />
      </template>
    </section>
  </main>
</template>

<style scoped>
.log {
  display: grid;
  grid-template-columns: minmax(0, 1.8fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.log > [aria-label='Log'] {
  order: -1;
}

@media (width <= 900px) {
  .log {
    grid-template-columns: minmax(0, 1fr);
  }

  .log > [aria-label='Log'] {
    order: 0;
  }
}

.side {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}

.put {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}

form[role='search'] {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 200px), 1fr));
  gap: 10px 14px;
  margin-bottom: 10px;
}
</style>
