interface Props {
  label: string;
  placeholder: string;
  value: string;
  onSearch: (text: string) => void;
}

/** Narrows a list by what is typed. */
export function SearchField({ label, placeholder, value, onSearch }: Props) {
  return (
    <input
      type="search"
      aria-label={label}
      placeholder={placeholder}
      className="written w-52 py-1 text-body placeholder:text-soft"
      value={value}
      onChange={(event) => onSearch(event.target.value)}
    />
  );
}
