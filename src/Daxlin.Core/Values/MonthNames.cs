using System.Collections.Frozen;

namespace Daxlin.Core.Values;

/// <summary>Months by their names and usual short forms, in the languages that invoices here come in.</summary>
internal static class MonthNames
{
    private static readonly string[] Lists =
    [
        "january february march april may june july august september october november december",
        "januar februar märz april mai juni juli august september oktober november dezember",
        "janvier février mars avril mai juin juillet août septembre octobre novembre décembre",
        "januari februari maart april mei juni juli augustus september oktober november december",
        "januari februari mars april maj juni juli augusti september oktober november december",
        "januar februar marts april maj juni juli august september oktober november december",
        "januar februar mars april mai juni juli august september oktober november desember",
        "enero febrero marzo abril mayo junio julio agosto septiembre octubre noviembre diciembre",
        "gennaio febbraio marzo aprile maggio giugno luglio agosto settembre ottobre novembre dicembre",
        "janeiro fevereiro março abril maio junho julho agosto setembro outubro novembro dezembro",
        "tammikuuta helmikuuta maaliskuuta huhtikuuta toukokuuta kesäkuuta heinäkuuta elokuuta syyskuuta lokakuuta marraskuuta joulukuuta",
        "stycznia lutego marca kwietnia maja czerwca lipca sierpnia września października listopada grudnia",
        "ledna února března dubna května června července srpna září října listopadu prosince",
        "jan feb mar apr may jun jul aug sep oct nov dec",
        "jan feb mär apr mai jun jul aug sept okt nov dez",
        "jänner feber mrz apr maj jun jul aug sep okt nov des",
        "janv févr mars avr mai juin juil août sept oct nov déc",
        "ene feb mar abr may jun jul ago sep oct nov dic",
        "gen feb mar apr mag giu lug ago set ott nov dic",
        "jan fev mar abr mai jun jul ago set out nov dez",
        "jan feb mrt apr mei jun jul aug sep okt nov dec",
    ];

    private static readonly FrozenDictionary<string, int> Numbers = Lists
        .SelectMany(list => list.Split(' ').Select((name, index) => (name, month: index + 1)))
        .DistinctBy(entry => entry.name)
        .ToFrozenDictionary(entry => entry.name, entry => entry.month, StringComparer.OrdinalIgnoreCase);

    /// <summary>The month from 1 to 12 that a name stands for, or 0.</summary>
    public static int Find(string name) => Numbers.GetValueOrDefault(name);
}
