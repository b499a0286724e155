#!/usr/bin/env bash
# What the machine itself must have: a voice for the demo, a browser and its driver and a Redis server
# for the tests, and letters of the scripts that our own fonts lack.
set -eu
wanted=()
command -v espeak-ng >/dev/null || wanted+=(espeak-ng)
command -v chromium >/dev/null || wanted+=(chromium)
command -v chromedriver >/dev/null || wanted+=(chromium-driver)
command -v redis-server >/dev/null || wanted+=(redis-server)
fonts=/usr/share/fonts/truetype
test -f $fonts/noto/NotoSansArabic-Regular.ttf || wanted+=(fonts-noto-core)
test -f $fonts/noto/NotoColorEmoji.ttf || wanted+=(fonts-noto-color-emoji)
test -f $fonts/droid/DroidSansFallbackFull.ttf || wanted+=(fonts-droid-fallback)
test -f $fonts/nanum/NanumGothic.ttf || wanted+=(fonts-nanum)
if [ ${#wanted[@]} -eq 0 ]; then exit 0; fi
sudo=""
if [ "$(id -u)" -ne 0 ]; then sudo="sudo"; fi
echo "Installing ${wanted[*]}"
export DEBIAN_FRONTEND=noninteractive
$sudo apt-get update -qq
$sudo apt-get install -y -qq --no-install-recommends "${wanted[@]}" >/dev/null
