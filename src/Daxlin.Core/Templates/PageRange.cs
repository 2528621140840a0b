namespace Daxlin.Core.Templates;

/// <summary>Some pages of an invoice, counted from 1; negative ones from the end: -1 is the last page.</summary>
/// <example><c>[2, "last"]</c> is <c>new PageRange(2, -1)</c>; <c>"last"</c> is <c>new PageRange(-1, -1)</c>.</example>
public readonly record struct PageRange(int From, int To)
{
    public static PageRange All { get; } = new(1, -1);

    /// <summary>Says that the range holds the page at an index, from 0, of an invoice of so many pages.</summary>
    public bool Holds(int index, int pages) => index >= At(From, pages) && index <= At(To, pages);

    private static int At(int page, int pages) => page < 0 ? pages + page : page - 1;
}
