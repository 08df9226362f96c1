#!/usr/bin/env bash
# For work on Zafra itself: pages reload as files change.
source "$(dirname "$0")/common.sh"
need_node
need_packages
exec npx vite dev
