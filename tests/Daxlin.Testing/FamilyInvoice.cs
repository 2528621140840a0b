using System.Collections.Immutable;
using Daxlin.Core.Checks;
using Daxlin.Core.Pages;
using Daxlin.Core.Recognition;

namespace Daxlin.Testing;

/// <summary>An invoice of a family as its template takes it.</summary>
/// <param name="Name">Its folder and file.</param>
public sealed record FamilyInvoice(string Name, ImmutableArray<Page> Pages, TemplateSet Templates, CheckedInvoice Checked);
