namespace Daxlin.Service.Storage;

/// <summary>What can be of a group, to which people can be held.</summary>
public interface IGrouped : IRevised
{
    /// <summary>As the history names it.</summary>
    string Name { get; }

    /// <summary>Empty if it is of no group.</summary>
    string Group { get; set; }

    new int Revision { get; set; }
}
