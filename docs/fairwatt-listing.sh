#!/bin/sh
# Collects what a machine says of its parts into one file for Intake. Run it on the machine, as root where possible:
#   sudo sh fairwatt-listing.sh [FILE]
# It reads only. What is not installed is passed over. No names of users, networks or folders go into the file.
set -u
out=${1:-fairwatt-listing.txt}

section() {
  printf '=== fairwatt-listing: %s\n' "$1"
}

# Runs a tool under its heading, where there is one.
run() {
  command -v "$1" >/dev/null 2>&1 || return 0
  section "$*"
  "$@" 2>/dev/null
  printf '\n'
}

# The lasting power limit that a processor keeps.
power_limits() {
  for zone in /sys/class/powercap/*-rapl:?; do
    [ -r "$zone/constraint_0_power_limit_uw" ] || continue
    printf '%s %s %s\n' "$(cat "$zone/name")" "$(cat "$zone/constraint_0_name")" \
      "$(cat "$zone/constraint_0_power_limit_uw")"
  done
}

{
  run dmidecode -t 2,3,4,17,39
  run lshw -json -quiet -sanitize
  run lspci -mm -nn
  run lsblk -J -b -o NAME,KNAME,TYPE,TRAN,ROTA,MODEL,SERIAL,SIZE
  run sensors -j
  for drive in /dev/sd? /dev/nvme?; do
    [ -e "$drive" ] && run smartctl --json -a "$drive"
  done
  section 'power limits'
  power_limits
  section end
} >"$out"
printf '%s\n' "Written: $out"
