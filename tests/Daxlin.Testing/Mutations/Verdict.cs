namespace Daxlin.Testing.Mutations;

/// <summary>What a changed invoice came to.</summary>
public enum Verdict
{
    /// <summary>All values are as they were, and it is clear.</summary>
    Harmless,

    /// <summary>All values are as they were, and it is held all the same.</summary>
    HeldNeedlessly,

    Held,

    /// <summary>Clear with a wrong value that nothing on the invoice could tell: a text, a date, a number that is said to be unchecked, a quantity in the place of its price, a decimal that is rounded away.</summary>
    Untold,

    /// <summary>Clear with a wrong value that a sum or a check digit could have told. Never.</summary>
    WrongAndClear,
}
