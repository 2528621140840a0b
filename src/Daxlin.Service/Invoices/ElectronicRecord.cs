using System.Collections.Immutable;
using Daxlin.Core.Checks;
using Daxlin.Core.Corrections;
using Daxlin.Core.Electronic;
using Daxlin.Core.Values;

namespace Daxlin.Service.Invoices;

/// <summary>An electronic invoice that the document carries, as far as it is for this invoice.</summary>
/// <param name="File">Its name within the document.</param>
/// <param name="Syntax"><c>ubl</c> or <c>cii</c>; empty if it cannot be read.</param>
/// <param name="Fields">What its header states; a name may stand more than once.</param>
/// <param name="Lines">Its lines.</param>
/// <param name="Taxes">Its tax rows.</param>
/// <param name="Fault">Why it cannot be read; empty if it can.</param>
/// <param name="Says">What it has to say of the invoice, in a sentence.</param>
public sealed record ElectronicRecord(
    string File, string Syntax, bool IsCreditNote, ImmutableArray<StatedRecord> Fields, ImmutableArray<ImmutableArray<StatedRecord>> Lines,
    ImmutableArray<ImmutableArray<StatedRecord>> Taxes, string Fault, string Says)
{
    internal static ElectronicRecord Of(ElectronicFile file, CheckedInvoice invoice) => new(
        file.Name, file.Invoice?.Syntax.ToString().ToLowerInvariant() ?? "", file.Invoice?.IsCreditNote ?? false,
        [.. (file.Invoice?.Fields ?? []).Select(StatedRecord.Of)], RowsOf(file.Invoice?.Lines ?? []), RowsOf(file.Invoice?.Taxes ?? []),
        file.Fault, ElectronicWitness.Sentence(invoice, file));

    /// <summary>The way back, so that a corrected invoice is held against it as well.</summary>
    internal ElectronicFile ToFile() => new(
        File,
        Fault.Length > 0 ? null : new ElectronicInvoice(
            Enum.Parse<ElectronicSyntax>(Syntax, ignoreCase: true), IsCreditNote, [.. Fields.Select(value => value.ToValue())], RowsOf(Lines), RowsOf(Taxes), []),
        Fault);

    private static ImmutableArray<ImmutableArray<StatedRecord>> RowsOf(ImmutableArray<StatedRow> rows) =>
        [.. rows.Select(row => row.Values.Select(StatedRecord.Of).ToImmutableArray())];

    private static ImmutableArray<StatedRow> RowsOf(ImmutableArray<ImmutableArray<StatedRecord>> rows) =>
        [.. rows.Select(row => new StatedRow([.. row.Select(value => value.ToValue())]))];
}

/// <summary>A value that an electronic invoice states.</summary>
/// <param name="Type">What kind of value it is: text, number, money, date …</param>
/// <param name="Path">Its place below the root: LegalMonetaryTotal/PayableAmount.</param>
public sealed record StatedRecord(string Name, string Type, string Value, string Path)
{
    internal static StatedRecord Of(StatedValue value) => new(value.Name, value.Kind.Word(), value.Value, value.Path);

    internal StatedValue ToValue()
    {
        var kind = ValueKinds.Find(Type) ?? ValueKind.Text;
        return new StatedValue(
            Name, kind, Value, kind.IsFigure() ? SettledForm.Number(Value) : null, Path, -1);
    }
}
