using System.Collections.Frozen;
using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using Daxlin.Core.Pages;

namespace Daxlin.Core.Drafting;

/// <summary>What vendors call things, in the languages of <c>captions.json</c>.</summary>
/// <remarks>
/// Compared without blanks, points and capitals: "P.U. HT", "PU HT" and "P U H T" are one. Two captions of one meaning with
/// a stroke between them ("FAKTURANR / INVOICE NO") are one caption.
/// </remarks>
internal sealed class Vocabulary
{
    /// <summary>A caption set wide apart letter by letter has as many "words" as letters.</summary>
    private const int MostWords = 14;

    /// <summary>Words of one caption are no further apart than so many times their size, also where captions are set wide.</summary>
    public const double WordGap = 1.2;

    private readonly FrozenDictionary<string, Meanings> phrases;

    /// <summary>For each phrase, after how many of its key's letters it can be parted: where a blank or a mark stands.</summary>
    private readonly FrozenDictionary<string, ImmutableHashSet<int>> joints;

    private Vocabulary(IEnumerable<(string Phrase, string Name, int Rank)> all)
    {
        var entries = all.ToList();
        joints = entries.GroupBy(entry => Key(entry.Phrase)).ToFrozenDictionary(group => group.Key, group => group.SelectMany(entry => JointsOf(entry.Phrase)).ToImmutableHashSet());
        phrases = entries.GroupBy(entry => Key(entry.Phrase)).ToFrozenDictionary(
            group => group.Key,
            group => new Meanings([.. group.GroupBy(entry => entry.Name).Select(same => (same.Key, same.Min(entry => entry.Rank)))]));
    }

    private static IEnumerable<int> JointsOf(string phrase) =>
        Enumerable.Range(1, phrase.Length - 1).Where(at => !char.IsLetterOrDigit(phrase[at - 1]) || !char.IsLetterOrDigit(phrase[at])).Select(at => Key(phrase[..at]).Length);

    /// <summary>Captions of header fields and totals.</summary>
    public static Vocabulary Fields { get; }

    /// <summary>Headings of item columns.</summary>
    public static Vocabulary Columns { get; }

    /// <summary>Headings of a tax summary.</summary>
    public static Vocabulary TaxTable { get; }

    /// <summary>For what an invoice calls itself, what a credit note calls itself in that language.</summary>
    public static ImmutableArray<(string Invoice, ImmutableArray<string> CreditNotes)> CreditNotes { get; }

    /// <summary>Words beside whose lines the buyer's address stands.</summary>
    public static ImmutableArray<string> Addressees { get; }

    /// <summary>Words for what is the buyer's: "your".</summary>
    public static FrozenSet<string> Yours { get; }

    /// <summary>
    /// The forms of tax numbers behind their country's letters, as patterns without blanks. Source: the structure of VAT
    /// identification numbers in the European Commission's VIES, with those of GB, XI, NO and CHE.
    /// </summary>
    public static ImmutableDictionary<string, string> TaxNumbers { get; }

    /// <summary>Legal forms that end a company's name.</summary>
    public static FrozenSet<string> LegalForms { get; }

    /// <summary>Captions of freight and discount by language, plainest first, for invoices that the samples do not show.</summary>
    public static ImmutableDictionary<string, ImmutableDictionary<string, ImmutableArray<string>>> ByLanguage { get; }

    static Vocabulary()
    {
        using var stream = typeof(Vocabulary).Assembly.GetManifestResourceStream("captions.json")!;
        using var document = JsonDocument.Parse(stream);
        var root = document.RootElement;
        Fields = new Vocabulary(EntriesOf(root.GetProperty("fields")));
        Columns = new Vocabulary(EntriesOf(root.GetProperty("columns")));
        TaxTable = new Vocabulary(EntriesOf(root.GetProperty("taxTable")));
        CreditNotes = [.. root.GetProperty("creditNotes").EnumerateObject().Select(entry => (entry.Name, TextsOf(entry.Value)))];
        Addressees = TextsOf(root.GetProperty("addressees"));
        Yours = TextsOf(root.GetProperty("yours")).ToFrozenSet(StringComparer.OrdinalIgnoreCase);
        TaxNumbers = root.GetProperty("taxNumbers").EnumerateObject().ToImmutableDictionary(country => country.Name, country => country.Value.GetString()!);
        LegalForms = TextsOf(root.GetProperty("legalForms")).ToFrozenSet(StringComparer.Ordinal);
        ByLanguage = root.GetProperty("fields").EnumerateObject().ToImmutableDictionary(
            field => field.Name, field => field.Value.EnumerateObject().ToImmutableDictionary(language => language.Name, language => TextsOf(language.Value)));
    }

    /// <summary>A text without what captions differ by: capitals, blanks, points, colons and hyphens.</summary>
    public static string Key(string text)
    {
        var key = new StringBuilder(text.Length);
        foreach (var c in text)
        {
            if (char.IsLetterOrDigit(c) || c is '%' or '#' or '°' or 'º' or '/' or '&')
                key.Append(char.ToUpperInvariant(c == 'º' ? '°' : c));
        }
        return key.ToString();
    }

    /// <summary>What a text as a whole can be a caption of; empty if it is none.</summary>
    public Meanings MeaningsOf(string text) => phrases.GetValueOrDefault(Key(text), Meanings.None);

    /// <summary>The captions of a line from left to right, each as long as it can be.</summary>
    public ImmutableArray<Caption> On(TextLine line)
    {
        var found = ImmutableArray.CreateBuilder<Caption>();
        for (var first = 0; first < line.Words.Length; first++)
        {
            if (LongestAt(line, first) is not { } caption)
                continue;
            found.Add(caption);
            first += caption.Words - 1;
        }
        return found.ToImmutable();
    }

    private Caption? LongestAt(TextLine line, int first)
    {
        // A bullet or a dash before a caption is no part of it.
        if (Key(line.Words[first].Text).Length == 0)
            return null;
        Caption? longest = null;
        var key = "";
        var gaps = new List<int>();
        for (var last = first; last < line.Words.Length && last - first < MostWords; last++)
        {
            if (last > first && line.Words[last].Box.Left - line.Words[last - 1].Box.Right > WordGap * line.Words[last].Size)
                break;
            var text = line.Words[last].Text;
            // Letters set apart stand anywhere in a caption; the gap between two cells only where words end.
            if (last > first && (text.Length > 1 || line.Words[last - 1].Text.Length > 1) && TextLine.IsCellGap(line.Words[last - 1], line.Words[last]))
                gaps.Add(key.Length);
            key += Key(text);
            var meanings = MeaningsOfKey(key);
            if (meanings.IsEmpty || (joints.TryGetValue(key, out var own) && !gaps.TrueForAll(own.Contains)))
                continue;
            var words = line.Words.AsSpan()[first..(last + 1)];
            longest = new Caption(
                TextOf(words), meanings, line, words[0].Box.Union(words[^1].Box), first, words.Length);
            // What stands behind a colon is the value: "Status: Due" is no due date.
            if (text.EndsWith(':'))
                break;
        }
        return longest;
    }

    private Meanings MeaningsOfKey(string key)
    {
        if (phrases.TryGetValue(key, out var meanings))
            return meanings;
        var stroke = key.IndexOf('/', StringComparison.Ordinal);
        if (stroke <= 0 || !phrases.TryGetValue(key[..stroke], out var left) || !phrases.TryGetValue(key[(stroke + 1)..], out var right))
            return Meanings.None;
        return new Meanings([.. left.All.Where(one => right.RankAs(one.Name) is not null)]);
    }

    /// <summary>A cue for the words: with single blanks, and without the colon that ends it. Letters set apart one by one are put together.</summary>
    private static string TextOf(ReadOnlySpan<Word> words)
    {
        var single = true;
        foreach (var word in words)
            single &= word.Text.Length == 1;
        var text = single && words.Length > 1 ? TextLine.TextOf(words).Replace(" ", "", StringComparison.Ordinal) : TextLine.TextOf(words);
        return text.TrimEnd(':', ' ', '\u00a0');
    }

    private static IEnumerable<(string, string, int)> EntriesOf(JsonElement names) =>
        from name in names.EnumerateObject()
        from language in name.Value.EnumerateObject()
        from entry in language.Value.EnumerateArray().Select((text, rank) => (Text: text.GetString()!, Rank: rank))
        select (entry.Text, name.Name, entry.Rank);

    private static ImmutableArray<string> TextsOf(JsonElement list) => [.. list.EnumerateArray().Select(text => text.GetString()!)];
}
