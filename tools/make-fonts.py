#!/usr/bin/env python3
"""Makes the shipped faces out of Source Sans 3 and Source Serif 4 (npm packages source-sans 3.52.0 and
source-serif 4.5.1, folder TTF): adds sharp and flat, which neither has, drops layout tables that JavaFX does not
read, and renames them, as the Open Font License asks of changed versions.

    python3 make-fonts.py SANS_FOLDER SERIF_FOLDER OUT_FOLDER        (needs fontTools)
"""
import sys
from fontTools.pens.ttGlyphPen import TTGlyphPen
from fontTools.subset import Options, Subsetter
from fontTools.ttLib import TTFont


def box(pen, x0, y0, x1, y1, lift=0):
    """An upright box, or one that rises by `lift` from left to right; clockwise."""
    pen.moveTo((x0, y0))
    pen.lineTo((x0, y1))
    pen.lineTo((x1, y1 + lift))
    pen.lineTo((x1, y0 + lift))
    pen.closePath()


def sharp(stem, bar, cap):
    pen = TTGlyphPen(None)
    box(pen, 130, -70, 130 + stem, cap + 10)
    box(pen, 280, -30, 280 + stem, cap + 50)
    box(pen, 40, 170, 370 + stem, 170 + bar, 80)
    box(pen, 40, 400, 370 + stem, 400 + bar, 80)
    return pen.glyph(), 410 + stem


def flat(stem, bar, cap):
    pen = TTGlyphPen(None)
    box(pen, 70, -20, 70 + stem, cap + 70)
    pen.moveTo((70 + stem, 300))
    pen.qCurveTo((150, 390), (250, 390))
    pen.qCurveTo((380, 390), (380, 260))
    pen.qCurveTo((380, 120), (70, -20))
    pen.lineTo((70 + stem, 70 + bar // 2))
    pen.qCurveTo((380 - stem - 20, 170), (380 - stem - 20, 255))
    pen.qCurveTo((380 - stem - 20, 320), (235, 320))
    pen.qCurveTo((150, 320), (70 + stem, 215))
    pen.closePath()
    return pen.glyph(), 430


def make(source, target, family, style, stem, bar):
    font = TTFont(source)
    cap = font["OS/2"].sCapHeight
    order = font.getGlyphOrder()
    for name, code, (glyph, width) in (("sharp", 0x266F, sharp(stem, bar, cap)), ("flat", 0x266D, flat(stem, bar, cap))):
        order.append(name)
        glyph.recalcBounds(font["glyf"])
        font["glyf"].glyphs[name] = glyph
        font["hmtx"].metrics[name] = (width, glyph.xMin)
        for table in font["cmap"].tables:
            if table.isUnicode():
                table.cmap[code] = name
    font.setGlyphOrder(order)
    font["maxp"].numGlyphs = len(order)
    options = Options(layout_features=["kern"], hinting=False, name_IDs=["*"], notdef_outline=True, glyph_names=False)
    subsetter = Subsetter(options)
    subsetter.populate(unicodes=[c for c in font.getBestCmap() if c < 0x3000])
    subsetter.subset(font)
    names = font["name"]
    licence = [n for n in names.names if n.nameID in (0, 13, 14)]
    names.names = licence
    for id_, text in ((1, family), (2, style), (3, f"1.0;{family};{style}"), (4, f"{family} {style}"),
                      (5, "Version 1.0"), (6, f"{family.replace(' ', '')}-{style}")):
        names.setName(text, id_, 3, 1, 0x409)
        names.setName(text, id_, 1, 0, 0)
    font["OS/2"].usWeightClass = 700 if style == "Bold" else 400
    font["OS/2"].fsSelection = 0x20 if style == "Bold" else 0x40
    font["head"].macStyle = 1 if style == "Bold" else 0
    font.save(target)


sans, serif, out = sys.argv[1:4]
make(f"{sans}/SourceSans3-Regular.ttf", f"{out}/DibbleSans-Regular.ttf", "Dibble Sans", "Regular", 50, 80)
make(f"{sans}/SourceSans3-Semibold.ttf", f"{out}/DibbleSans-Bold.ttf", "Dibble Sans", "Bold", 70, 110)
make(f"{serif}/SourceSerif4-Semibold.ttf", f"{out}/DibbleSerif-Regular.ttf", "Dibble Serif", "Regular", 56, 110)
