namespace Daxlin.Core.Templates.Tidy;

/// <summary>One step from captured text towards a typed value.</summary>
public abstract record TidyStep
{
    /// <summary>The step's name in a template and a trace: <c>take</c>.</summary>
    public abstract string Name { get; }

    /// <summary>The text after the step; empty if nothing is left of it.</summary>
    public abstract string Apply(string text);
}
