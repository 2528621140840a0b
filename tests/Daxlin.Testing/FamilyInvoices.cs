using System.Collections.Immutable;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates.Json;
using Daxlin.Reading;

namespace Daxlin.Testing;

/// <summary>The invoices of a family's folder as its templates take them.</summary>
public static class FamilyInvoices
{
    /// <summary>All families at hand, by folder.</summary>
    public static ImmutableArray<string> Folders => [.. new[] { Repository.Corpus, Repository.Families, Repository.Samples }.SelectMany(Repository.FamiliesOf)];

    /// <summary>The invoices that come out clear, each with its own pages.</summary>
    public static IEnumerable<FamilyInvoice> Clear(string family)
    {
        TemplateSet templates = [.. Directory.GetFiles(family, "*.template.json").Select(file => TemplateReader.Read(File.ReadAllText(file)))];
        foreach (var file in Directory.GetFiles(family, "*.pdf").Order(StringComparer.Ordinal))
        {
            foreach (var taken in InvoicePath.Take(PdfReader.Read(File.ReadAllBytes(file)), templates, DocumentFacts.Unknown))
            {
                if (taken.Checked is { IsClear: true } invoice)
                    yield return new($"{Path.GetFileName(family)}/{Path.GetFileName(file)}", taken.Found.Pages, templates, invoice);
            }
        }
    }
}
