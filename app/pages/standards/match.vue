<script setup lang="ts">
import { z } from 'zod'
import { sayTurns, toEighth } from '#core/quantity/turns'
import { fitOf, sayFit, VERDICT_WORDS } from '#core/rear/fit'
import { sayPerClick, thirdPart, type Fix } from '#core/rear/fixes'
import { meanOf } from '#core/standards/entry'
import { alike, trioOf } from '#core/rear/trio'
import { useMatch } from '~/workers/useMatch'

useHead({ title: 'Match · Standards · Ocho' })
const { parts, own, error } = await useCatalogue()
const route = useRoute()

/** What is chosen stands in the address, so that it can be shown to someone else; an unknown part counts as none. */
const Wanted = z.object({ s: z.string().catch('r14-10'), d: z.string().catch('r14-10'), c: z.string().catch('r14-10') })
const first = Wanted.parse(route.query)
const known = (list: readonly { id: string }[], id: string) => (list.some(p => p.id === id) ? id : '')
const chosen = reactive({
  shifter: known(parts.value.shifters, first.s),
  derailleur: known(parts.value.derailleurs, first.d),
  cassette: known(parts.value.cassettes, first.c),
})
watch(chosen, c => void navigateTo({ query: { s: c.shifter, d: c.derailleur, c: c.cassette } }, { replace: true }))

const shifter = computed(() => parts.value.shifters.find(p => p.id === chosen.shifter) ?? null)
const derailleur = computed(() => parts.value.derailleurs.find(p => p.id === chosen.derailleur) ?? null)
const cassette = computed(() => parts.value.cassettes.find(p => p.id === chosen.cassette) ?? null)

const ORDINAL = ['smallest', '2nd', '3rd']
const gearName = (k: number, n: number) => (k === n - 1 ? 'largest' : (ORDINAL[k] ?? `${k + 1}th`))
const fit = computed(() =>
  shifter.value && derailleur.value && cassette.value
    ? fitOf(trioOf(shifter.value, derailleur.value, cassette.value))
    : null,
)
const words = computed(() => fit.value && sayFit(fit.value, k => gearName(k, fit.value!.gears)))
const perClick = computed(() => fit.value && sayPerClick(trioOf(shifter.value!, derailleur.value!, cassette.value!)))
const mean = meanOf
/** With two parts: what the third must be, and which of the catalogue are. */
const third = computed(() => thirdPart(shifter.value, derailleur.value, cassette.value, parts.value))

const shifters = computed(() => alike(parts.value.shifters, p => p.pullMm))
const cassettes = computed(() => alike(parts.value.cassettes, p => p.pitchMm))
const question = computed(
  () =>
    derailleur.value && {
      derailleur: derailleur.value,
      parts: {
        shifters: shifters.value.map(s => s.part),
        derailleurs: [],
        cassettes: cassettes.value.map(c => c.part),
      },
    },
)
const whole = computed(() =>
  fit.value && fit.value.verdict !== 'works'
    ? {
        shifter: shifter.value!,
        derailleur: derailleur.value!,
        cassette: cassette.value!,
        parts: parts.value,
        own: own.value,
      }
    : null,
)
const { matrix, fixes: fixing } = useMatch(question, whole)
/** What would fix the chosen trio; null while it is looked for. */
const fixes = computed(() => (fixing.value.is === 'ready' ? fixing.value.value : null))
const rows = computed(() =>
  shifters.value.map(s => ({
    id: s.part.id,
    label: s.ids.length > 1 ? `${s.ids[0]} +${s.ids.length - 1}` : cut(s.part.name),
    sub: mean(s.part.pullMm).toFixed(2),
  })),
)
const cut = (name: string) => (name.length > 10 ? `${name.slice(0, 9)}…` : name)
const columns = computed(() =>
  cassettes.value.map(c => ({
    id: c.part.id,
    label: `${c.part.pitchMm.length + 1}`,
    sub: mean(c.part.pitchMm).toFixed(2),
  })),
)
const cells = computed(() =>
  matrix.value.is === 'ready'
    ? matrix.value.value.map(r =>
        r.map(c => ({ verdict: c.verdict, windowTurns: c.windowTurns, words: VERDICT_WORDS[c.verdict] })),
      )
    : null,
)
const inGroup = (groups: { part: { id: string }; ids: string[] }[], id: string) =>
  groups.find(g => g.ids.includes(id))?.part.id ?? ''

const factor = (f: { from: number; to: number }) =>
  f.from === f.to ? f.from.toFixed(2) : `${f.from.toFixed(2)} to ${f.to.toFixed(2)}`
function sayFix(fix: Fix): string {
  if (fix.by === 'pinch-side')
    return `The other side of the pinch bolt, if it changes the ratio by a factor of ${factor(fix.factor)}`
  if (fix.by === 'pulley')
    return `A pulley in the cable's run that changes the pull by a factor of ${factor(fix.factor)}`
  return `Another ${fix.by}: ${fix.name}`
}
const window = (turns: number) => `${sayTurns(toEighth(turns))} turn clean`
function pick(shifterId: string, cassetteId: string) {
  chosen.shifter = shifterId
  chosen.cassette = cassetteId
}
const take = (by: 'shifter' | 'derailleur' | 'cassette', id: string) => {
  chosen[by] = id
}
const ids = { shifter: useId(), derailleur: useId(), cassette: useId() }
</script>

<template>
  <div>
    <PageHead title="Standards"><StandardsNav /></PageHead>
    <main class="mx-auto grid max-w-[1440px] gap-x-6 gap-y-5 px-4 py-4 sm:px-6 lg:grid-cols-[auto_minmax(0,1fr)]">
      <p v-if="error" class="stopped lg:col-span-2" role="alert">{{ OFFLINE_WORDS }}</p>
      <section class="order-2 min-w-0 lg:order-1" aria-label="Matrix">
        <div class="mat overflow-x-auto p-1">
          <FitMatrix
            v-if="cells && derailleur"
            :rows="rows"
            :columns="columns"
            :cells="cells"
            :row="inGroup(shifters, chosen.shifter)"
            :column="inGroup(cassettes, chosen.cassette)"
            @pick="pick"
          />
          <p v-else class="p-6 text-mat-soft">
            {{
              matrix.is === 'failed'
                ? 'The matrix could not be worked out here: the parts at the side still are.'
                : derailleur
                  ? 'Working it out'
                  : 'Choose a derailleur and every shifter with every cassette shows here.'
            }}
          </p>
        </div>
        <p class="small mt-2 flex flex-wrap gap-x-5 gap-y-1">
          <span
            ><svg width="18" height="18" class="inline align-[-4px]" aria-hidden="true">
              <circle cx="9" cy="9" r="8" fill="var(--clean)" />
            </svg>
            works</span
          >
          <span
            ><svg width="18" height="18" class="inline align-[-4px]" aria-hidden="true">
              <circle cx="9" cy="9" r="6.5" fill="none" stroke="var(--clean)" stroke-width="3" />
            </svg>
            with care</span
          >
          <span
            ><svg width="18" height="18" class="inline align-[-4px]" aria-hidden="true">
              <circle cx="9" cy="9" r="2.5" fill="var(--soft)" />
            </svg>
            will not index</span
          >
          <span>across: sprockets and pitch, down: pull per click, mm</span>
        </p>
      </section>
      <section class="order-1 grid content-start gap-4 lg:order-2" aria-label="Parts">
        <div class="grid gap-1.5">
          <div class="grid items-center gap-x-3 sm:grid-cols-[6.5rem_1fr]">
            <label class="label mb-0!" :for="ids.shifter">Shifter</label
            ><select :id="ids.shifter" v-model="chosen.shifter" class="field" data-test="pick-shifter">
              <option value="">none</option>
              <option v-for="p in parts.shifters" :key="p.id" :value="p.id">
                {{ p.name }}: {{ mean(p.pullMm).toFixed(2) }} mm, {{ p.pullMm.length }} clicks
              </option>
            </select>
          </div>
          <div class="grid items-center gap-x-3 sm:grid-cols-[6.5rem_1fr]">
            <label class="label mb-0!" :for="ids.derailleur">Derailleur</label
            ><select :id="ids.derailleur" v-model="chosen.derailleur" class="field" data-test="pick-derailleur">
              <option value="">none</option>
              <option v-for="p in parts.derailleurs" :key="p.id" :value="p.id">
                {{ p.name }}: {{ mean(p.ratio).toFixed(3) }}
              </option>
            </select>
          </div>
          <div class="grid items-center gap-x-3 sm:grid-cols-[6.5rem_1fr]">
            <label class="label mb-0!" :for="ids.cassette">Cassette</label
            ><select :id="ids.cassette" v-model="chosen.cassette" class="field" data-test="pick-cassette">
              <option value="">none</option>
              <option v-for="p in parts.cassettes" :key="p.id" :value="p.id">
                {{ p.name }}: {{ mean(p.pitchMm).toFixed(2) }} mm, {{ p.pitchMm.length + 1 }} sprockets
              </option>
            </select>
          </div>
        </div>
        <template v-if="fit">
          <p
            class="text-2xl leading-tight font-bold"
            :class="fit.verdict === 'works' ? 'text-clean' : fit.verdict === 'will-not-index' ? 'text-stop' : ''"
            role="status"
            data-test="verdict"
          >
            {{ words }}
          </p>
          <div class="mat p-1">
            <MatchStrip :labels="fit.errorMm.map((_, k) => k + 1)" :error-mm="fit.errorMm" :clean-mm="fit.cleanMm" />
          </div>
          <p v-if="perClick" class="figure" data-test="per-click">{{ perClick }}</p>
          <p v-if="shifter!.pullMm.length > cassette!.pitchMm.length" class="font-semibold text-stop">
            {{ shifter!.pullMm.length - cassette!.pitchMm.length }} of the shifter's clicks find no sprocket: the
            {{ fit.gears }} gears both have are judged.
          </p>
          <p v-if="whole && fixing.is === 'failed'" class="stopped" role="alert">{{ fixing.message }}</p>
          <p v-else-if="whole && fixes === null" class="text-soft" role="status">Looking for what would fix it</p>
          <div v-if="fixes?.length" data-test="fixes">
            <h2 class="font-bold">What would fix it</h2>
            <ul class="mt-1 border-t border-rule">
              <li
                v-for="(f, i) in fixes"
                :key="i"
                class="flex min-h-12 items-center justify-between gap-3 border-b border-rule"
              >
                <span
                  >{{ sayFix(f) }} <span class="small whitespace-nowrap">{{ window(f.fit.windowTurns) }}</span></span
                >
                <button
                  v-if="f.by !== 'pinch-side' && f.by !== 'pulley'"
                  type="button"
                  class="quiet whitespace-nowrap"
                  :data-test="`try-${f.by}-${f.id}`"
                  @click="take(f.by, f.id)"
                >
                  Try it
                </button>
              </li>
            </ul>
            <p class="small mt-1">
              The side of the pinch bolt changes the ratio by 10 to 15 %, from memory: which way, the bolt shows.
            </p>
          </div>
          <p v-else-if="fixes && whole" class="font-semibold">Nothing in the catalogue would fix it.</p>
          <p class="small">
            Judged by our model: is there a span of barrel settings in which every gear is clean from both sides, with a
            new cable and well-set stops. From 3/8 turn it works, under 1/8 it will not index.
          </p>
        </template>
        <template v-else-if="third">
          <p class="text-2xl leading-tight font-bold" role="status" data-test="verdict">
            The {{ third.what }} must have {{ third.needs }}.
          </p>
          <ul v-if="third.fits.length" class="border-t border-rule">
            <li
              v-for="p in third.fits"
              :key="p.id"
              class="flex min-h-12 items-center justify-between gap-3 border-b border-rule"
            >
              <span>{{ p.name }} <span class="small">{{ window(p.fit.windowTurns) }}</span></span
              ><button type="button" class="quiet" @click="take(third.what, p.id)">Take it</button>
            </li>
          </ul>
          <p v-else class="font-semibold text-stop">Nothing in the catalogue has that.</p>
        </template>
        <p v-else class="text-lg">
          Choose two parts and what the third must be shows here; with three, how far off each gear is.
          <NuxtLink class="underline" to="/standards/measure">Measure</NuxtLink> a part nobody knows.
        </p>
      </section>
    </main>
  </div>
</template>
