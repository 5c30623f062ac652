# Steps shared by run, test and measure: what the machine must have, and building what is out of date. Sourced, with $here set.
export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1 DOTNET_SKIP_FIRST_TIME_EXPERIENCE=1 MSBUILDDISABLENODEREUSE=1

# Says plainly what is missing and how to get it.
build_tools() {
  local missing=0
  command -v dotnet >/dev/null || { echo "The .NET SDK 10 is missing: install the package dotnet-sdk-10.0 of your system." >&2; missing=1; }
  if command -v dotnet >/dev/null && ! dotnet --list-sdks | grep -q '^10\.'; then
    echo "The .NET SDK is there, but not version 10: install the package dotnet-sdk-10.0." >&2; missing=1
  fi
  command -v node >/dev/null || { echo "Node.js is missing: install version 20.19 or later." >&2; missing=1; }
  command -v npm >/dev/null || { echo "npm is missing: it comes with Node.js." >&2; missing=1; }
  return $missing
}

# True if any file under the given places is newer than the stamp, or there is no stamp.
newer_than() {
  local stamp="$1"; shift
  [ -e "$stamp" ] || return 0
  [ -n "$(find "$@" \( -name node_modules -o -name bin -o -name obj -o -name wwwroot \) -prune -o -type f -newer "$stamp" -print -quit 2>/dev/null)" ]
}

build_packages() {
  local stamp="$here/node_modules/.ruddy-stamp"
  newer_than "$stamp" "$here/package-lock.json" "$here/web/package.json" "$here/tests/e2e/package.json" || return 0
  echo "Installing front-end packages ..."
  (cd "$here" && { npm ci --prefer-offline --no-audit --no-fund --loglevel=error || npm ci --no-audit --no-fund --loglevel=error; }) && touch "$stamp"
}

build_front_end() {
  build_packages || return 1
  newer_than "$here/src/Server/wwwroot/index.html" "$here/web" || return 0
  echo "Building the front end ..."
  (cd "$here/web" && npx --no-install vite build --logLevel warn)
}

# The server, with its code compiled for this machine beforehand: it starts in two thirds of the time.
server_dll="$here/src/Server/bin/app/RuddySpring.Server.dll"
build_server() {
  local stamp="$here/src/Server/bin/app/.ruddy-stamp"
  newer_than "$stamp" "$here/src" "$here/Directory.Build.props" "$here/Directory.Packages.props" "$here/global.json" || return 0
  echo "Building the server ..."
  mkdir -p "$here/src/Server/bin"
  dotnet build "$here/src/Instruments" -c Release -v q -clp:NoSummary || return 1
  if ! publish_server true >"$here/src/Server/bin/publish.txt" 2>&1; then
    echo "The compiler that works beforehand is not to be had here; the server will start a little slower."
    publish_server false || return 1
  fi
  touch "$stamp"
}

# The lock files hold for every machine, so the packages of this one are noted beside what is built.
publish_server() {
  dotnet publish "$here/src/Server" -c Release --use-current-runtime --self-contained false -o "$here/src/Server/bin/app" \
    -p:PublishReadyToRun="$1" -p:OpenApiGenerateDocuments=false -p:RestoreLockedMode=false \
    -p:NuGetLockFilePath=obj/publish.lock.json -p:StaticWebAssetsEnabled=false -p:EnableDefaultContentItems=false \
    -v q -clp:NoSummary
}

build_application() { build_front_end && build_server; }
