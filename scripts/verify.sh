#!/usr/bin/env bash
# Whether every figure of a report follows from the loads beside it.
source "$(dirname "$0")/common.sh"
need_node
need_packages
need_build
exec node build/verify/verify.mjs "$@"
