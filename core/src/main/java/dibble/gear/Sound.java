package dibble.gear;

import static dibble.text.CoreText.say;

import dibble.midi.ShortMessage;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.List;

/**
 * The settings of a part's sound. A null setting leaves the device unchanged.
 *
 * @param bank controllers 0 and 32 as a list of two, or null
 * @param program 0-127, or null
 * @param volume controller 7, 0-127, or null
 * @param pan controller 10, 0-127, or null
 */
public record Sound(List<Integer> bank, Integer program, Integer volume, Integer pan) {
    public Sound {
        Ranges.range("number.program", program, 0, 127);
        Ranges.range("number.volume", volume, 0, 127);
        Ranges.range("number.pan", pan, 0, 127);
        if (bank != null) {
            bank = List.copyOf(bank);
            if (bank.size() != 2) {
                throw new UserException(say("sound.bank-of-numbers-expected-2", bank.size()));
            }
            bank.forEach(number -> Ranges.range("number.bank", number, 0, 127));
        }
    }

    /** Controller 0 of its bank where that is sent, else null. */
    public Integer coarseBank(BankSelect by) {
        return bank == null || by == BankSelect.FINE ? null : bank.get(0);
    }

    /** Controller 32 of its bank where that is sent, else null. */
    public Integer fineBank(BankSelect by) {
        return bank == null || by == BankSelect.COARSE ? null : bank.get(1);
    }

    /** The messages that give a channel 0-15 this sound, in their order: bank 0 and 32, program, volume, pan. */
    int[] messages(int channel, BankSelect by) {
        List<Integer> messages = new ArrayList<>();
        if (coarseBank(by) != null) {
            messages.add(ShortMessage.controller(channel, 0, coarseBank(by)));
        }
        if (fineBank(by) != null) {
            messages.add(ShortMessage.controller(channel, 32, fineBank(by)));
        }
        if (program != null) {
            messages.add(ShortMessage.programChange(channel, program));
        }
        if (volume != null) {
            messages.add(ShortMessage.controller(channel, 7, volume));
        }
        if (pan != null) {
            messages.add(ShortMessage.controller(channel, 10, pan));
        }
        return messages.stream().mapToInt(Integer::intValue).toArray();
    }
}
