import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { root } from './paths.ts';

const folder = join(root, 'server/migrations');
const hashOf = (name: string) =>
  createHash('sha256')
    .update(readFileSync(join(folder, name)))
    .digest('hex')
    .slice(0, 16);

/** Migrations that have shipped. One that is here never changes again: whoever has run it would not run it anew. */
const shipped: Readonly<Record<string, string>> = {
  '0001_first.sql': 'ddf2bbb7b6ae5450',
  '0002_record.sql': 'ed77bf7f3be815aa',
  '0003_measure.sql': '4e58f54916f5ca65',
  '0004_instruments.sql': '86526195fab15f9b',
  '0005_whose_instrument.sql': 'edac513827fe9213',
  '0006_choosing.sql': 'dc0d0189160bbe71',
  '0007_cable_bags.sql': '8c825e5393ec1250',
  '0008_cabling.sql': 'c68df7aa3cdb55c9',
  '0009_sweeps.sql': '541c6e56c51c4d0d',
  '0010_revisions.sql': '1de0154afc88c20e',
  '0011_changes.sql': '698159b5073573ff',
  '0012_log_off.sql': 'f870510e1bc0a396',
  '0013_ground_proof.sql': 'edb1d79621fa9ef2',
  '0014_load_figures.sql': '6eaf051f40e325fc',
  '0015_fittings.sql': '7ac1f5add51e7e71',
  '0016_shelf_stamp.sql': '864b00964073e2b8',
  '0017_station_lines.sql': '89bbead62419b987',
  '0018_search.sql': '0a44149efe286227',
  '0019_code_prefix.sql': '28695c0ec1c3d919',
  '0020_words.sql': '1beb893b0e38a09d',
  '0021_proofs.sql': '3f1b17cee3126a35',
  '0022_usual_outputs.sql': '7d5b7e277001eb6e',
  '0023_order.sql': '872b9515a0024543',
  '0024_leads.sql': '3ca639fb6f7da4b0',
  '0025_usual_machines.sql': '4bb914f71616272d',
  '0026_old_supply.sql': '0797e2dc29ca4378',
  '0027_access.sql': 'b1ab0e81897fca10',
  '0028_also_told.sql': '1e05a5fa3d340cf9',
  '0029_put_away.sql': '5e12c019b319cc5c',
  '0030_likely_cable.sql': 'ae58c0687834907e',
  '0031_times_and_ripple.sql': 'c8aea59fab174805',
  '0032_bare_supply.sql': 'd231ada7b0a4cc8d',
  '0033_second_fault.sql': '109d8c6c3bca5f2b',
  '0034_laid_ways.sql': '243095d0cf25be7e',
  '0035_photo_of_lead.sql': '7a8658dc244195eb',
  '0036_own_plug.sql': '6c14a308a4477051',
  '0037_selector.sql': '732269c38d7a9fa7',
  '0038_notes.sql': '86576eab6da186f9',
  '0039_spares_found.sql': '8634cd5af530c64e',
  '0040_second_wires.sql': '3d8bfc1b9823479e',
  '0041_board_sensor.sql': '55ac6c60e0e2629b',
  '0042_session_told.sql': '62172842c133886a',
  '0043_found_adapters.sql': '67df16fecd650ac1',
  '0044_two_ended.sql': '0c6f5a7d7d72a088',
  '0045_wished_adapter.sql': 'bb56ffafc236162d',
  '0046_numbered_cables.sql': 'd3892d01320d5351',
  '0047_salted_codes.sql': '17611defb568371f',
  '0048_record_tally.sql': '0144dbb9afdd9855',
  '0049_nightly_once.sql': '3d6e622b92ee6152',
  '0050_choice_facts.sql': '2730faabf99b5eb1',
  '0051_manner.sql': '877303f4dff5c8e2',
};

it('a migration that has shipped never changes again', () => {
  const found = Object.fromEntries(
    readdirSync(folder)
      .filter((name) => name.endsWith('.sql'))
      .sort()
      .map((name) => [name, hashOf(name)]),
  );
  expect(found).toEqual(shipped);
});
