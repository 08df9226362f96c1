#!/usr/bin/env bash
# Records the demonstration trials with the real lab from the simulated web.
source "$(dirname "$0")/common.sh"
need_node
need_packages
need_chromium
if [ "${1:-}" = audits ]; then shift; exec node --import tsx scripts/recordAudits.ts "$@"; fi
exec node --import tsx scripts/record.ts "$@"
