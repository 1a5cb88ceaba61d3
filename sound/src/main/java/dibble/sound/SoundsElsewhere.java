package dibble.sound;

import dibble.levels.SoundPlan;
import dibble.ports.OutputPort;
import java.util.Map;
import java.util.function.Function;

/** Instruments that sound elsewhere: nothing is mixed here, and all levels are silent. */
record SoundsElsewhere(Function<String, OutputPort> ports) implements SoundEngine {
    @Override
    public OutputPort open(String port) {
        return ports.apply(port);
    }

    @Override
    public boolean isHere() {
        return false;
    }

    @Override
    public void start() {}

    @Override
    public void choose(AudioSettings chosen) {}

    @Override
    public void lookAgain() {}

    @Override
    public void follow(SoundPlan plan, Map<String, SoundBank> files) {}

    @Override
    public boolean isSounding() {
        return false;
    }

    @Override
    public Reading strip(String port, int channel, int key) {
        return Meters.NONE.strip(port, channel, key);
    }

    @Override
    public Reading output(int number) {
        return Meters.NONE.output(number);
    }

    @Override
    public Status status() {
        return Meters.NONE.status();
    }

    @Override
    public void forgetPeaks() {}

    @Override
    public void close() {}
}
