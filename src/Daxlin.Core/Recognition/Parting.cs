using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Recognition;

/// <summary>Where a file was parted because a value changed from one page to the next.</summary>
/// <param name="Page">The first page of the invoice that begins there, or whose end that is.</param>
/// <param name="Field">The header field whose value changed.</param>
public sealed record Parting(int Page, string Field, string Before, string Value)
{
    /// <summary>The code of its finding.</summary>
    public const string Code = "parted-here";

    public Finding ToFinding() => new(
        Code, Severity.Note,
        $"The file was parted before page {Page.ToString(CultureInfo.InvariantCulture)}: the {TradeNames.Spoken(Field)} reads “{Before}” before it and “{Value}” on it. "
        + "If they are one invoice, the template's “newInvoice” can say so.",
        [Field]);
}
