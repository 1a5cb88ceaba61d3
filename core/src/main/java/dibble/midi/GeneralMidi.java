package dibble.midi;

import java.util.Map;
import java.util.TreeMap;

/** The program names of General MIDI level 1, as the standard lists them. */
public final class GeneralMidi {
    private static final String[] PROGRAMS = ("Acoustic grand piano;Bright acoustic piano;Electric grand piano;"
                    + "Honky-tonk piano;Electric piano 1;Electric piano 2;Harpsichord;Clavi;Celesta;Glockenspiel;"
                    + "Music box;Vibraphone;Marimba;Xylophone;Tubular bells;Dulcimer;Drawbar organ;"
                    + "Percussive organ;Rock organ;Church organ;Reed organ;Accordion;Harmonica;Tango accordion;"
                    + "Acoustic guitar, nylon;Acoustic guitar, steel;Electric guitar, jazz;Electric guitar, clean;"
                    + "Electric guitar, muted;Overdriven guitar;Distortion guitar;Guitar harmonics;Acoustic bass;"
                    + "Electric bass, finger;Electric bass, pick;Fretless bass;Slap bass 1;Slap bass 2;Synth bass 1;"
                    + "Synth bass 2;Violin;Viola;Cello;Contrabass;Tremolo strings;Pizzicato strings;"
                    + "Orchestral harp;Timpani;String ensemble 1;String ensemble 2;Synth strings 1;Synth strings 2;"
                    + "Choir aahs;Voice oohs;Synth voice;Orchestra hit;Trumpet;Trombone;Tuba;Muted trumpet;"
                    + "French horn;Brass section;Synth brass 1;Synth brass 2;Soprano sax;Alto sax;Tenor sax;"
                    + "Baritone sax;Oboe;English horn;Bassoon;Clarinet;Piccolo;Flute;Recorder;Pan flute;"
                    + "Blown bottle;Shakuhachi;Whistle;Ocarina;Lead 1, square;Lead 2, sawtooth;Lead 3, calliope;"
                    + "Lead 4, chiff;Lead 5, charang;Lead 6, voice;Lead 7, fifths;Lead 8, bass and lead;"
                    + "Pad 1, new age;Pad 2, warm;Pad 3, polysynth;Pad 4, choir;Pad 5, bowed;Pad 6, metallic;"
                    + "Pad 7, halo;Pad 8, sweep;FX 1, rain;FX 2, soundtrack;FX 3, crystal;FX 4, atmosphere;"
                    + "FX 5, brightness;FX 6, goblins;FX 7, echoes;FX 8, sci-fi;Sitar;Banjo;Shamisen;Koto;Kalimba;"
                    + "Bag pipe;Fiddle;Shanai;Tinkle bell;Agogo;Steel drums;Woodblock;Taiko drum;Melodic tom;"
                    + "Synth drum;Reverse cymbal;Guitar fret noise;Breath noise;Seashore;Bird tweet;"
                    + "Telephone ring;Helicopter;Applause;Gunshot")
            .split(";");

    private static final int FIRST_PERCUSSION = 35;

    private static final String[] PERCUSSION = ("Acoustic bass drum;Bass drum 1;Side stick;Acoustic snare;Hand clap;"
                    + "Electric snare;Low floor tom;Closed hi-hat;High floor tom;Pedal hi-hat;Low tom;Open hi-hat;"
                    + "Low-mid tom;High-mid tom;Crash cymbal 1;High tom;Ride cymbal 1;Chinese cymbal;Ride bell;"
                    + "Tambourine;Splash cymbal;Cowbell;Crash cymbal 2;Vibraslap;Ride cymbal 2;High bongo;Low bongo;"
                    + "Mute high conga;Open high conga;Low conga;High timbale;Low timbale;High agogo;Low agogo;Cabasa;"
                    + "Maracas;Short whistle;Long whistle;Short guiro;Long guiro;Claves;High wood block;"
                    + "Low wood block;Mute cuica;Open cuica;Mute triangle;Open triangle")
            .split(";");

    private GeneralMidi() {}

    /** The percussion sounds of the notes 35-81 on the percussion channel. */
    public static Map<Integer, String> percussion() {
        Map<Integer, String> names = new TreeMap<>();
        for (int i = 0; i < PERCUSSION.length; i++) {
            names.put(FIRST_PERCUSSION + i, PERCUSSION[i]);
        }
        return names;
    }

    /** The name of program 0-127, with its number as the trade prints it (1-128): {@code 9 Celesta}. */
    public static String program(int program) {
        return program + 1 + " " + PROGRAMS[program];
    }
}
