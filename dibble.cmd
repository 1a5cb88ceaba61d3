@echo off
rem Starts Dibble, building it first where that is needed: see the shell script of the same name.
setlocal
set "here=%~dp0"
set "version=0.1.0"
where java >nul 2>nul || (echo dibble: no Java found: install a JDK, 17 or newer 1>&2& exit /b 2)
for /f "tokens=3" %%v in ('java -version 2^>^&1 ^| findstr /i "version"') do set "full=%%~v"
for /f "delims=." %%m in ("%full%") do set "level=%%m"
if %level% LSS 17 (echo dibble: Java %level% is too old: install a JDK, 17 or newer 1>&2& exit /b 2)
where mvn >nul 2>nul || (echo dibble: no Maven found: install Maven, 3.8 or newer 1>&2& exit /b 2)
if "%1"=="test" (pushd "%here%" & call mvn -B -ntp verify & goto :end)
pushd "%here%"
echo dibble: building where needed 1>&2
call mvn -q -B -ntp -Dmaven.test.skip -Dspotless.check.skip -pl core,sound,jack,paper,cli,desktop package dependency:copy-dependencies -DincludeScope=runtime "-DoutputDirectory=%here%target\lib" || (echo dibble: the build failed 1>&2& popd & exit /b 2)
copy /y "cli\target\dibble-cli-%version%.jar" "target\lib" >nul
copy /y "desktop\target\dibble-desktop-%version%.jar" "target\lib" >nul
popd
set "native="
if %level% GEQ 22 set "native=--enable-native-access=ALL-UNNAMED"
for %%c in (route trace check sort ports --help --version) do if "%1"=="%%c" (
  java -Xmx448m -XX:+UseSerialGC -cp "%here%target\lib\*" dibble.cli.Main %*
  exit /b
)
java %native% --add-exports=java.desktop/com.sun.media.sound=ALL-UNNAMED -Xmx1g -cp "%here%target\lib\*" dibble.desktop.app.Main %*
exit /b
:end
set "code=%errorlevel%"
popd
exit /b %code%
