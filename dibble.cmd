@echo off
rem Starts Dibble, building it first where that is needed: see the shell script of the same name. Not tried on Windows.
setlocal
set "here=%~dp0"
set "lib=%here%target\lib"
set "start=%here%tools\start"
where java >nul 2>nul || (echo dibble: no Java found: install a JDK, 17 or newer 1>&2& exit /b 2)
for /f "tokens=3" %%v in ('java -version 2^>^&1 ^| findstr /i "version"') do set "full=%%~v"
for /f "delims=." %%m in ("%full%") do set "level=%%m"
if %level% LSS 17 (echo dibble: Java %level% is too old: install a JDK, 17 or newer 1>&2& exit /b 2)
where mvn >nul 2>nul || (echo dibble: no Maven found: install Maven, 3.8 or newer 1>&2& exit /b 2)
pushd "%here%"
if "%1"=="test" (call mvn -B -ntp verify & goto :end)
echo dibble: building where needed 1>&2
call mvn -q -B -ntp -Dmaven.test.skip -Dspotless.check.skip -pl testing,core,runtime,sound,jack,paper,presentation,cli,desktop package dependency:copy-dependencies -DincludeScope=runtime "-DoutputDirectory=%lib%" || (echo dibble: the build failed 1>&2& popd & exit /b 2)
copy /y "cli\target\dibble-cli.jar" "%lib%" >nul
copy /y "desktop\target\dibble-desktop.jar" "%lib%" >nul
if "%1"=="package" (
  call mvn -q -B -ntp -f tools\package\pom.xml dependency:copy-dependencies "-DoutputDirectory=%here%target\package-tools" || goto :end
  java -cp "%lib%\*;%here%target\package-tools\*" tools\Package.java "%here%." "%lib%"
  goto :end
)
popd
set /p commands=<"%start%\commands"
for %%c in (%commands%) do if "%1"=="%%c" (
  java "@%start%\commands.options" -cp "%lib%\*" dibble.cli.Main %*
  exit /b
)
set "native="
if %level% GEQ 22 set "native=--enable-native-access=ALL-UNNAMED"
java "@%start%\window.options" %native% -cp "%lib%\*" dibble.desktop.app.Main %*
exit /b
:end
set "code=%errorlevel%"
popd
exit /b %code%
