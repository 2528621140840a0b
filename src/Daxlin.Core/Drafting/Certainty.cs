namespace Daxlin.Core.Drafting;

/// <summary>How sure a part of a drafted template is.</summary>
public enum Certainty
{
    /// <summary>The sample's own arithmetic says so, or check digits: quantity × unit price = amount on row after row.</summary>
    Certain,

    /// <summary>A caption or a form speaks for it, and nothing proves it.</summary>
    Guess,

    /// <summary>Nothing on the samples speaks for it.</summary>
    NotFound,
}
