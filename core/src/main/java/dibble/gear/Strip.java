package dibble.gear;

import static dibble.text.CoreText.say;

import dibble.text.UserException;
import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * The mixer strip of a sound: level, pan, effect sends and output.
 *
 * @param level in dB, up to {@link Loudness#MAX}, {@link Loudness#SILENCE} for none; null to leave it unchanged
 * @param pan controller 10, 0-127; null to leave it unchanged
 * @param reverb controller 91, the send to the room, 0-127
 * @param chorus controller 93, the send to the chorus, 0-127
 * @param output the output, 1-64; output 1 is the first pair of the audio device
 * @param group 1-8 if its level moves with others, else 0
 */
@RecordBuilder
public record Strip(Double level, Integer pan, int reverb, int chorus, int output, int group)
        implements StripBuilder.With {
    /** The number of groups. */
    public static final int GROUPS = 8;

    /** One that says nothing. */
    public static final Strip PLAIN = new Strip(null, null, 0, 0, 1, 0);

    public Strip {
        if (level != null && !(level <= Loudness.MAX && Loudness.held(level) == level)) {
            throw new UserException(say("strip.level-expected-to", level, (long) Loudness.MIN, (long) Loudness.MAX));
        }
        Ranges.range("number.pan", pan, 0, 127);
        Ranges.range("number.reverb", reverb, 0, 127);
        Ranges.range("number.chorus", chorus, 0, 127);
        Ranges.range("number.output", output, 1, 64);
        Ranges.range("number.group", group, 0, GROUPS);
    }

    /** The level in dB that holds: where none is said, that of a volume that was never told. */
    public double levelNow() {
        return level == null ? Loudness.ofVolume(Loudness.USUAL_VOLUME) : level;
    }

    /** The pan 0-127 that holds. */
    public int panNow() {
        return pan == null ? Loudness.MIDDLE : pan;
    }

    /** The level as controller 7, 0-127; null where it is left as it is. */
    public Integer volume() {
        return level == null ? null : Integer.valueOf(Loudness.volume(level));
    }

    /** With a level in dB, kept in tenths; null to leave it as it is. */
    @Override
    public Strip withLevel(Double decibels) {
        return with().level(decibels == null ? null : Double.valueOf(Loudness.rounded(decibels)))
                .build();
    }

    /** With the level of a volume 0-127; null to leave it as it is. */
    public Strip withVolume(Integer volume) {
        Ranges.range("number.volume", volume, 0, 127);
        return with().level(volume == null ? null : Double.valueOf(Loudness.ofVolume(volume)))
                .build();
    }
}
