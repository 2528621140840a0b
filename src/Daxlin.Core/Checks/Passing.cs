namespace Daxlin.Core.Checks;

/// <summary>Whether a person may let a finding pass.</summary>
public enum Passing
{
    /// <summary>By having looked: a doubt about what is printed.</summary>
    Freely,

    /// <summary>Only for a reason that is kept on record: figures that do not add up.</summary>
    ForReason,

    /// <summary>Something must be mended.</summary>
    Never,
}
