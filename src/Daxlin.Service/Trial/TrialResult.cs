using System.Collections.Immutable;
using Daxlin.Service.Invoices;
using Daxlin.Service.Templates;

namespace Daxlin.Service.Trial;

/// <summary>What came of trying templates on documents.</summary>
/// <param name="Templates">Each with its faults; nothing is tried while one has any.</param>
/// <param name="Invoices">The invoices of all documents, in the interface's own form, without numbers since none is stored.</param>
/// <param name="Unreadable">Documents that could not be read.</param>
public sealed record TrialResult(
    ImmutableArray<TemplateChecked> Templates, ImmutableArray<InvoiceDetail> Invoices, ImmutableArray<UnreadableFile> Unreadable);

/// <summary>A document that could not be read.</summary>
/// <param name="Code">A stable word.</param>
/// <param name="Reason">A sentence.</param>
public sealed record UnreadableFile(string File, string Code, string Reason);
