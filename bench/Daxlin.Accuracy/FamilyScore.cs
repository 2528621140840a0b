using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates.Json;
using Daxlin.Reading;

namespace Daxlin.Accuracy;

/// <summary>Captures a family of invoices with its own templates and holds the result against its truth.</summary>
public sealed partial record FamilyScore(string Family, ImmutableArray<InvoiceScore> Invoices)
{
    /// <param name="directory">Holds the PDFs, <c>truth.json</c> and one or more <c>*.template.json</c>.</param>
    /// <param name="most">Of its invoices, the first so many.</param>
    /// <param name="read">How a file is read; null for as it is.</param>
    public static FamilyScore Of(string directory, int most = int.MaxValue, Func<string, ImmutableArray<Page>>? read = null)
    {
        var truth = TruthFile.Load(Path.Combine(directory, "truth.json"));
        truth = truth with { Invoices = [.. truth.Invoices.Take(most)] };
        return Of(directory, truth, [.. Directory.GetFiles(directory, "*.template.json").Order(StringComparer.Ordinal)
            .Select(path => TemplateReader.Read(File.ReadAllText(path)))], read);
    }

    /// <summary>The same by other templates than the family's own.</summary>
    public static FamilyScore Of(string directory, TruthFile truth, TemplateSet templates, Func<string, ImmutableArray<Page>>? read = null)
    {
        var scores = truth.Invoices.Select(invoice => ScoreOf(invoice, truth.NotPrinted, CheckedOf(directory, invoice, templates, read ?? AsItIs)));
        return new FamilyScore(Path.GetFileName(Path.TrimEndingDirectorySeparator(directory)), [.. scores]);
    }

    private static ImmutableArray<Page> AsItIs(string file) => PdfReader.Read(File.ReadAllBytes(file));

    private static CheckedInvoice? CheckedOf(string directory, TruthInvoice invoice, TemplateSet templates, Func<string, ImmutableArray<Page>> read)
    {
        var pages = read(Path.Combine(directory, invoice.File));
        var facts = new DocumentFacts(invoice.File, "", null);
        // Each invoice of a file with several is known by its first page.
        return InvoicePath.Take(pages, templates, facts).LastOrDefault(taken => taken.FirstPage <= invoice.FirstPage)?.Checked;
    }

    private static InvoiceScore ScoreOf(TruthInvoice truth, ImmutableHashSet<string> notPrinted, CheckedInvoice? invoice)
    {
        var captured = invoice is null ? [] : ValuesOf(invoice.Captured);
        var names = truth.Values.Keys.Union(captured.Keys)
            .Where(name => !notPrinted.Contains(KindOf(name)))
            // Where no tax of its own is printed, its rate stands on the lines, as their column.
            .Where(name => !(name.StartsWith("taxes[", StringComparison.Ordinal) && notPrinted.Contains("taxes.amount")))
            // A basis of 1 is never printed.
            .Where(name => !(name.EndsWith(".priceBasis", StringComparison.Ordinal) && truth.Values.GetValueOrDefault(name) == "1"))
            .Where(name => truth.Values.GetValueOrDefault(name) is not null || captured.ContainsKey(name))
            .Where(name => truth.Values.ContainsKey(name) || name.StartsWith("lines[", StringComparison.Ordinal))
            .ToList();
        // The stated tax is captured as a field, or as the rows of the tax summary.
        if (!captured.ContainsKey("tax") && invoice is not null && invoice.Captured.Taxes.Length > 0)
            names.Remove("tax");
        // Where nothing is taxed, none is printed.
        if (!captured.ContainsKey("tax") && truth.Values.GetValueOrDefault("tax") == "0" && !truth.Values.ContainsKey("taxes[1].amount"))
            names.Remove("tax");
        var wrong = names
            .Select(name => (Name: name, Truth: truth.Values.GetValueOrDefault(name), Captured: captured.GetValueOrDefault(name)))
            .Where(cell => !IsSame(cell.Truth, cell.Captured))
            .ToImmutableArray();
        var why = invoice is null ? "no template recognises it" : string.Join(" | ", invoice.Findings.Select(finding => finding.Message));
        return new InvoiceScore(truth, [.. names], wrong, invoice?.IsClear ?? false, why);
    }

    private static Dictionary<string, string> ValuesOf(CapturedInvoice invoice)
    {
        var values = invoice.Fields.ToDictionary(field => field.Name, field => field.Value);
        values["isCreditNote"] = invoice.IsCreditNote ? "true" : "false";
        foreach (var (prefix, rows) in new[] { ("lines", invoice.Lines), ("taxes", invoice.Taxes) })
        {
            foreach (var row in rows)
            {
                foreach (var cell in row.Cells)
                    values[$"{prefix}[{row.Number}].{cell.Name}"] = cell.Value;
            }
        }
        return values;
    }

    /// <summary>Numbers are the same if they are equal (4.9 and 4.90), texts if they are alike to the letter.</summary>
    private static bool IsSame(string? truth, string? captured)
    {
        if (truth == captured)
            return true;
        return decimal.TryParse(truth, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var a)
            && decimal.TryParse(captured, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var b)
            && a == b;
    }

    /// <summary>What kind of cell a name is: <c>lines.amount</c> for <c>lines[3].amount</c>.</summary>
    public static string KindOf(string name) => RowNumber().Replace(name, "");

    [GeneratedRegex(@"\[\d+\]")]
    private static partial Regex RowNumber();
}
