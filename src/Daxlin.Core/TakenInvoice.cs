using Daxlin.Core.Checks;
using Daxlin.Core.Recognition;

namespace Daxlin.Core;

/// <summary>An invoice found in a document, captured and checked.</summary>
/// <param name="Checked">Null if no template is for it.</param>
public sealed record TakenInvoice(FoundInvoice Found, CheckedInvoice? Checked)
{
    public int FirstPage => Found.Pages[0].Number;

    public int LastPage => Found.Pages[^1].Number;
}
