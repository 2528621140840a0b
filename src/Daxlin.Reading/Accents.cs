using System.Runtime.InteropServices;

namespace Daxlin.Reading;

/// <summary>Letters whose accent is drawn apart, as a sign of its own over or under them: an acute on an "e" is "é".</summary>
/// <remarks>Some typesetters draw all accented letters so, in fonts that have none.</remarks>
internal static class Accents
{
    /// <summary>By accent: each letter, and what it is with it.</summary>
    private static readonly Dictionary<char, string> letters = new()
    {
        ['\u00B4'] = "AÁEÉIÍOÓUÚYÝCĆNŃSŚZŹLĹRŔaáeéiíoóuúyýcćnńsśzźlĺrŕıí",
        ['\u02CA'] = "AÁEÉIÍOÓUÚYÝaáeéiíoóuúyýıí",
        ['`'] = "AÀEÈIÌOÒUÙaàeèiìoòuùıì",
        ['\u02CB'] = "AÀEÈIÌOÒUÙaàeèiìoòuùıì",
        ['\u02C6'] = "AÂEÊIÎOÔUÛaâeêiîoôuûıîcĉgĝhĥjĵsŝwŵyŷ",
        ['\u00A8'] = "AÄEËIÏOÖUÜYŸaäeëiïoöuüyÿıï",
        ['\u02DC'] = "AÃNÑOÕaãnñoõ",
        ['\u00B8'] = "CÇSŞTŢcçsştţ",
        ['\u02DA'] = "AÅUŮaåuů",
        ['\u02C7'] = "CČDĎEĚNŇRŘSŠTŤZŽcčeěnňrřsšzždďtť",
        ['\u02D8'] = "AĂGĞaăgğ",
        ['\u02D9'] = "EĖIİZŻeėzż",
        ['\u02DD'] = "OŐUŰoőuű",
        ['\u02DB'] = "AĄEĘaąeę",
    };

    /// <summary>Joins accents to the letters that they are drawn on.</summary>
    /// <param name="row">From left to right.</param>
    public static void Join(List<Letter> row)
    {
        var all = CollectionsMarshal.AsSpan(row);
        var kept = 0;
        for (var index = 0; index < all.Length; index++)
        {
            ref readonly var letter = ref all[index];
            if (kept > 0 && (With(all[kept - 1], letter) ?? With(letter, all[kept - 1])) is { } joined)
                all[kept - 1] = joined;
            else
                all[kept++] = letter;
        }
        if (kept < row.Count)
            row.RemoveRange(kept, row.Count - kept);
    }

    /// <returns>Null unless the first is an accent that stands on the second, and there is such a letter.</returns>
    private static Letter? With(in Letter accent, in Letter letter)
    {
        if (accent.Text.Length != 1 || accent.Text[0] is (< '\u00A8' and not '`') or > '\u02DD' || letter.Text.Length != 1 || !letters.TryGetValue(accent.Text[0], out var joined))
            return null;
        // Over the letter, and not beside it.
        var overlap = Math.Min(accent.End, letter.End) - Math.Max(accent.Start, letter.Start);
        if (overlap < 0.6 * Math.Min(accent.End - accent.Start, letter.End - letter.Start))
            return null;
        for (var index = 0; index + 1 < joined.Length; index += 2)
        {
            if (joined[index] == letter.Text[0])
                return new Letter(joined[index + 1].ToString(), letter.Start, letter.End, letter.Baseline, letter.Size);
        }
        return null;
    }
}
