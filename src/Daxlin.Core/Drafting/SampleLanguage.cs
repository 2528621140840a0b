using System.Collections.Immutable;
using System.Text.RegularExpressions;

namespace Daxlin.Core.Drafting;

/// <summary>The language of the samples, and what it calls things that the samples do not show.</summary>
/// <param name="Code">As in <c>captions.json</c>: de.</param>
/// <param name="CreditNotes">What a credit note of the vendor calls itself.</param>
internal sealed record SampleLanguage(string Code, ImmutableArray<string> CreditNotes)
{
    /// <summary>So many captions of what the samples do not show; a template is to be read by a person.</summary>
    private const int MostUnseen = 12;

    /// <summary>The language whose captions stand on the samples the most.</summary>
    public static SampleLanguage Of(ImmutableArray<Sample> samples)
    {
        var printed = samples.SelectMany(sample => sample.Lines).SelectMany(line => Vocabulary.Fields.On(line)).Select(caption => Vocabulary.Key(caption.Text)).ToHashSet();
        var code = Vocabulary.ByLanguage.Values.SelectMany(names => names).GroupBy(language => language.Key)
            .MaxBy(language => language.SelectMany(one => one.Value).Select(Vocabulary.Key).Distinct().Count(printed.Contains))!.Key;
        var text = string.Join('\n', samples.SelectMany(sample => sample.Lines).Select(line => line.Text));
        var creditNotes = Vocabulary.CreditNotes.FirstOrDefault(pair => Regex.IsMatch(text, $@"\b{pair.Invoice}", RegexOptions.IgnoreCase)).CreditNotes;
        return new SampleLanguage(code, creditNotes.IsDefault ? [] : creditNotes);
    }

    /// <summary>Captions of a name, the plainest first: other invoices of the vendor may have what these have not.</summary>
    public ImmutableArray<string> Unseen(string name) => [.. Vocabulary.ByLanguage[name].GetValueOrDefault(Code, []).Take(MostUnseen)];
}
