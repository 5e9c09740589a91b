<script lang="ts">
  // What feeds the circuit, state by state: without it no powered reading can be foretold.
  import Notice from '$lib/ui/Notice.svelte';
  import { type Netlist, netsOf } from '@orthos/core/circuit';
  import { parseReading } from '@orthos/core/ground';

  let { netlist, onChange }: { netlist: Netlist; onChange: (netlist: Netlist) => void } = $props();
  let named = $state('awake');
  let net = $state('');
  let volts = $state('');
  let limit = $state('');
  let problem = $state('');
  let pairsProblem = $state('');
  /** "VIN VINF, SW 3V3" as pairs of nets. */
  function setPairs(text: string) {
    const pairs = text
      .split(/[,;\n]+/)
      .map((p) => p.trim().split(/\s+/))
      .filter((p) => p[0] !== '');
    const known = netsOf(netlist);
    const wrong = pairs.find((p) => p.length !== 2 || !p.every((n) => known.includes(n)));
    if (wrong)
      return (pairsProblem = `${wrong.join(' ')}: two nets of the circuit, such as ${known.slice(0, 2).join(' ')}.`);
    pairsProblem = '';
    onChange({ ...netlist, pairs: pairs.map(([a, b]): [string, string] => [a, b]) });
  }
  const states = $derived(Object.entries(netlist.power?.states ?? {}));

  function add(event: SubmitEvent) {
    event.preventDefault();
    const [v, ilim] = [parseReading(volts), parseReading(limit)];
    if (!named.trim() || !netsOf(netlist).includes(net)) return (problem = 'Name the state and a net of the circuit.');
    if (typeof v !== 'number' || typeof ilim !== 'number' || ilim <= 0)
      return (problem = 'Volts and a current limit, such as 12 and 500m.');
    problem = '';
    const power = netlist.power ?? { sources: [], loads: [], states: {} };
    const own = power.states[named.trim()] ?? { sources: [], loads: [] };
    const sources = [...own.sources.filter((s) => s.p !== net), { p: net, v, ilim, rout: 0.02 }];
    onChange({ ...netlist, power: { ...power, states: { ...power.states, [named.trim()]: { ...own, sources } } } });
    volts = '';
    limit = '';
  }
  function remove(name: string, p: string) {
    if (!netlist.power) return;
    const own = netlist.power.states[name];
    const sources = own.sources.filter((s) => s.p !== p);
    const kept = Object.entries(netlist.power.states).filter(([other]) => other !== name || sources.length > 0);
    const states = Object.fromEntries(kept.map(([k, s]) => [k, k === name ? { ...own, sources } : s]));
    onChange({ ...netlist, power: { ...netlist.power, states } });
  }
</script>

<h3 class="mt-5 mb-1 text-[13px] text-ink2">What feeds it</h3>
{#each states as [name, supply] (name)}
  {#each supply.sources as s (s.p)}
    <p class="flex items-center border-t border-faint py-1">
      <span class="flex-1"><b>{name}</b>: {s.v} V on {s.p}, at most {s.ilim} A</span>
      <button type="button" class="button" onclick={() => remove(name, s.p)} aria-label="Take {s.p} out of {name}"
        >Take out</button
      >
    </p>
  {/each}
{:else}
  <p class="border-t border-faint py-1 text-ink2">Nothing yet: volts cannot be foretold.</p>
{/each}
<form onsubmit={add} class="mt-1 grid grid-cols-[1fr_1fr_70px_80px_auto] items-end gap-2" aria-label="Supply">
  <div>
    <label class="label" for="sp-state">State</label><input
      id="sp-state"
      class="field"
      bind:value={named}
      maxlength="60"
    />
  </div>
  <div>
    <label class="label" for="sp-net">Net</label><input
      id="sp-net"
      class="field"
      bind:value={net}
      list="c-nets"
      autocomplete="off"
    />
  </div>
  <div>
    <label class="label" for="sp-v">Volts</label><input id="sp-v" class="field" bind:value={volts} autocomplete="off" />
  </div>
  <div>
    <label class="label" for="sp-i">Limit, A</label><input
      id="sp-i"
      class="field"
      bind:value={limit}
      autocomplete="off"
    />
  </div>
  <button class="button">Set</button>
</form>
<Notice text={problem} at="field" class="mt-1" />

<label class="mt-4 block"
  ><span class="label">Pairs of nets worth a reading across</span>
  <input
    class="field"
    value={netlist.pairs.map((p) => p.join(' ')).join(', ')}
    placeholder="VIN VINF, SW 3V3"
    autocomplete="off"
    onchange={(e) => setPairs(e.currentTarget.value)}
    aria-describedby={pairsProblem ? 'p-pairs' : undefined}
  /></label
>
<Notice text={pairsProblem} at="field" id="p-pairs" />
