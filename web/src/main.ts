import { mount } from 'svelte'
import './app.css'
import App from './App.svelte'
import { preferences } from './domain/preferences.svelte'

preferences.show()
mount(App, { target: document.getElementById('app')! })
