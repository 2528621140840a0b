using System.Collections.Immutable;
using System.Globalization;
using System.Xml.Linq;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Electronic;

/// <summary>The elements of a file with their places in it, and how their texts become values.</summary>
internal sealed class ElectronicElements
{
    private readonly Dictionary<XElement, int> numbers = [];

    public ElectronicElements(XElement root)
    {
        Root = root;
        var all = ImmutableArray.CreateBuilder<ElectronicElement>();
        Add(root, 0, all);
        All = all.ToImmutable();
    }

    public XElement Root { get; }

    public ImmutableArray<ElectronicElement> All { get; }

    private void Add(XElement element, int depth, ImmutableArray<ElectronicElement>.Builder all)
    {
        numbers[element] = all.Count;
        var attributes = string.Join(", ", element.Attributes().Where(one => !one.IsNamespaceDeclaration).Select(one => $"{one.Name.LocalName} {one.Value}"));
        all.Add(new ElectronicElement(
            depth, element.Name.LocalName + (attributes.Length > 0 ? $" ({attributes})" : ""), element.HasElements ? "" : element.Value.Trim()));
        foreach (var child in element.Elements())
            Add(child, depth + 1, all);
    }

    /// <summary>The first element at a path of local names; null if there is none.</summary>
    public static XElement? At(XElement? from, string path) => AllAt(from, path).FirstOrDefault();

    /// <summary>All elements at a path of local names, in the order of the file.</summary>
    public static IEnumerable<XElement> AllAt(XElement? from, string path)
    {
        IEnumerable<XElement> found = from is null ? [] : [from];
        foreach (var name in path.Split('/'))
            found = found.SelectMany(element => element.Elements().Where(child => child.Name.LocalName == name));
        return found;
    }

    /// <summary>Says that an element holds an IBAN: account numbers of other forms stand in the same elements, and say nothing of one on the page.</summary>
    public static bool IsIban(XElement element) => ValueReader.ReadIban(element.Value).IsGood;

    public static string TextAt(XElement? from, string path) => At(from, path)?.Value.Trim() ?? "";

    /// <summary>A value by the kind that its name has; none if the element is absent or empty.</summary>
    /// <exception cref="ElectronicFaultException">The text is none of its kind.</exception>
    public IEnumerable<StatedValue> Value(string name, XElement? element)
    {
        if (element is null || element.Value.Trim() is not { Length: > 0 } text)
            yield break;
        if (text.Length > LongestText)
            throw new ElectronicFaultException($"{PathOf(element)} says a text of {text.Length.ToString(CultureInfo.InvariantCulture)} letters; at most {LongestText} are read.");
        var kind = name == ElectronicInvoice.TaxedSum ? ValueKind.Money : TradeNames.KindOf(name);
        yield return kind switch
        {
            _ when kind.IsFigure() => Figure(name, kind, NumberOf(element, text), element),
            ValueKind.Date => new(name, kind, DateOf(element, text), null, PathOf(element), numbers[element]),
            ValueKind.Iban => new(name, kind, ValueReader.ReadIban(text).Value, null, PathOf(element), numbers[element]),
            _ => new(name, kind, text, null, PathOf(element), numbers[element]),
        };
    }

    /// <summary>A figure of an element, or one that was worked out of several (then without an element).</summary>
    public StatedValue Figure(string name, ValueKind kind, decimal number, XElement? element) =>
        new(name, kind, number.ToString(CultureInfo.InvariantCulture), number, element is null ? "" : PathOf(element), element is null ? -1 : numbers[element]);

    /// <summary>The number that an element says; null if it is absent.</summary>
    public static decimal? NumberAt(XElement? from, string path) =>
        At(from, path) is { } element && element.Value.Trim() is { Length: > 0 } text ? NumberOf(element, text) : null;

    /// <summary>No amount of an invoice; sums of less than this come out exactly.</summary>
    private const decimal TooLarge = 1_000_000_000_000_000m;

    /// <remarks>xs:decimal: figures, a point, a sign; never a comma, an exponent or a currency.</remarks>
    private static decimal NumberOf(XElement element, string text) =>
        decimal.TryParse(text, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number) && Math.Abs(number) < TooLarge ? number
            : throw new ElectronicFaultException($"{PathOf(element)} says “{Shortened(text)}”, which is no number of an invoice.");

    /// <remarks>xs:date, with a time zone or without, or the eight figures of UN/CEFACT's format 102.</remarks>
    private static string DateOf(XElement element, string text)
    {
        var day = text.Length > 10 && text[4] == '-' ? text[..10] : text;
        foreach (var form in new[] { "yyyy-MM-dd", "yyyyMMdd" })
        {
            if (DateOnly.TryParseExact(day, form, CultureInfo.InvariantCulture, DateTimeStyles.None, out var date))
                return date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
        }
        throw new ElectronicFaultException($"{PathOf(element)} says “{Shortened(text)}”, which is no date.");
    }

    private const int LongestText = 10_000;
    private const int LongestPath = 200;

    private static string PathOf(XElement element)
    {
        var path = string.Join('/', element.AncestorsAndSelf().Where(one => one.Parent is not null).Reverse().Select(one => one.Name.LocalName));
        return path.Length <= LongestPath ? path : path[..(LongestPath - 1)] + "…";
    }

    private static string Shortened(string text) => text.Length <= 40 ? text : text[..39] + "…";
}
